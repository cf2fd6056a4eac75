-- Up Migration
-- A project's life: its state, what one wrote of it, what was otherwise for it alone, and what its programs are set to.
alter table project drop constraint project_state_check;
alter table project add constraint project_state_check check (state in ('starting', 'running', 'waiting', 'closed', 'packed', 'failed'));
alter table project
  add column last_check uuid references check_run (id) on delete set null,
  add column notes text not null default '',
  add column state_at timestamptz not null default clock_timestamp(),
  -- Folders left out, chosen, renamed or redirected for this project alone, by the node's id.
  add column adjusted jsonb not null default '{}',
  -- Conventions and folder rules of its own, in place of the template's.
  add column own jsonb not null default '{}',
  -- Settings chosen at the start, by their label.
  add column settings jsonb not null default '{}',
  add column picture bytea,
  add column version integer not null default 1;
update project p set last_check = (select id from check_run k where k.project_id = p.id and k.state = 'done' order by started_at desc limit 1);
create index project_client on project (client_code);
create index project_person on project (started_by);
create index project_number on project (number desc);
create table project_mark (
  person_id text not null references person (id) on delete cascade,
  project_id uuid not null references project (id) on delete cascade,
  pinned boolean not null default false,
  opened_at timestamptz,
  primary key (person_id, project_id)
);
create table first_day (
  project_id uuid not null references project (id) on delete cascade,
  place integer not null,
  words text not null,
  done_by text references person (id),
  done_at timestamptz,
  primary key (project_id, place)
);

-- Down Migration
drop table first_day;
drop table project_mark;
alter table project drop column version, drop column picture, drop column settings, drop column own, drop column adjusted, drop column state_at, drop column notes, drop column last_check;
