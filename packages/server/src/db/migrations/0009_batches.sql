-- Up Migration
-- What was done to a project's folder, batch by batch. The journal on the disk is what they are undone by; these rows say which there are, and what the project was.
create table batch (
  id uuid primary key,
  project_id uuid not null references project (id) on delete cascade,
  what text not null,
  person_id text references person (id),
  at timestamptz not null default clock_timestamp(),
  ended_at timestamptz,
  state text not null check (state in ('running', 'paused', 'done', 'taken-back')),
  why text not null default '',
  changes integer not null default 0,
  undoes uuid references batch (id),
  -- The project's shape before and after it.
  shape_from jsonb not null,
  shape_to jsonb not null
);
-- One at a time in a project, however many ask.
create unique index batch_open_once on batch (project_id) where state in ('running', 'paused');
create index batch_of_project on batch (project_id, at desc);
-- A change that somebody thinks over, kept until it is made or thrown away.
create table reshape_draft (
  project_id uuid not null references project (id) on delete cascade,
  person_id text not null references person (id) on delete cascade,
  body jsonb not null,
  at timestamptz not null default clock_timestamp(),
  primary key (project_id, person_id)
);
-- Copies of a project's folder that somebody said to leave alone.
create table copy_left (
  project_id uuid not null references project (id) on delete cascade,
  volume text not null,
  folder text not null,
  primary key (project_id, volume, folder)
);

-- Down Migration
drop table copy_left;
drop table reshape_draft;
drop table batch;
