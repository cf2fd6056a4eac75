-- Up Migration
alter table template add column archived boolean not null default false;
alter table template_edition add column said text not null default '';
alter table template_edition add column put_by text references person (id);
create table template_draft (
  template_id text primary key references template (id) on delete cascade,
  body jsonb not null,
  version integer not null default 1,
  person_id text references person (id),
  changed_at timestamptz not null default clock_timestamp()
);
-- Files that are new in a draft; the others are those of the edition before.
create table draft_starter (
  template_id text not null references template (id) on delete cascade,
  path text not null,
  bytes bytea not null,
  primary key (template_id, path)
);

-- Down Migration
drop table draft_starter;
drop table template_draft;
alter table template_edition drop column put_by;
alter table template_edition drop column said;
alter table template drop column archived;
