-- Up Migration
-- No way in is opened for somebody who has left, whoever opens it and whenever: the person's row is looked at under a
-- lock, so that leaving and coming in at one moment are one after the other.
create function only_who_works_here() returns trigger language plpgsql as $$
begin
  if (select retired from person where id = new.person_id for share) then
    raise exception 'this person has left' using errcode = 'check_violation', constraint = 'only_who_works_here';
  end if;
  return new;
end $$;
delete from session using person where person.id = session.person_id and person.retired;
delete from finding_link using person where person.id = finding_link.person_id and person.retired;
create trigger session_only before insert on session for each row execute function only_who_works_here();
create trigger access_key_only before insert on access_key for each row execute function only_who_works_here();
create trigger access_link_only before insert on access_link for each row
  when (new.person_id is not null) execute function only_who_works_here();
create trigger finding_link_only before insert on finding_link for each row execute function only_who_works_here();

-- One id from a request to the job, the batch, the check and the activity that it gave rise to.
alter table activity add column request text;
alter table batch add column request text;
alter table check_run add column request text;
-- Why a change stopped, as a code and what its words are made of; rows of before hold their sentence in `why`.
alter table batch add column because jsonb;

-- Down Migration
alter table check_run drop column request;
alter table batch drop column request;
alter table activity drop column request;
alter table batch drop column because;
drop trigger finding_link_only on finding_link;
drop trigger access_link_only on access_link;
drop trigger access_key_only on access_key;
drop trigger session_only on session;
drop function only_who_works_here;
