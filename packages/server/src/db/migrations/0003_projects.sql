-- Up Migration
-- One row, locked while a number is given out: that two people never get the same one rests on it.
create table number_series (
  name text primary key,
  digits integer not null check (digits between 2 and 6)
);
insert into number_series (name, digits) values ('project', 3);
create table number_hold (
  number text primary key,
  person_id text not null references person (id) on delete cascade,
  until timestamptz not null
);
create table project (
  id uuid primary key,
  number text not null constraint project_number_once unique check (number <> ''),
  client_code text references client (code),
  title text not null default '',
  template_id text not null,
  edition integer not null,
  "values" jsonb not null,
  volume text not null,
  folder text not null,
  state text not null check (state in ('starting', 'running', 'failed')),
  started_by text not null references person (id),
  started_at timestamptz not null default now(),
  foreign key (template_id, edition) references template_edition (template_id, edition)
);
-- Systems that do not tell capitals apart see one folder.
create unique index project_folder_once on project (volume, lower(folder));
create table check_run (
  id uuid primary key,
  project_id uuid not null references project (id) on delete cascade,
  state text not null check (state in ('queued', 'running', 'done', 'failed')),
  files integer not null default 0,
  folders integer not null default 0,
  bytes bigint not null default 0,
  must integer not null default 0,
  should integer not null default 0,
  note integer not null default 0,
  said text[] not null default '{}',
  asked_by text references person (id),
  started_at timestamptz not null default clock_timestamp(),
  ended_at timestamptz
);
create index check_run_of_project on check_run (project_id, started_at desc);
create table finding (
  check_id uuid not null references check_run (id) on delete cascade,
  place integer not null,
  id text not null,
  rule text not null,
  weight text not null check (weight in ('must', 'should', 'note')),
  path text collate "C" not null,
  body jsonb not null,
  primary key (check_id, place)
);
create table folder_count (
  check_id uuid not null references check_run (id) on delete cascade,
  path text collate "C" not null,
  files integer not null,
  bytes bigint not null,
  state text not null,
  primary key (check_id, path)
);
create table activity (
  id bigint generated always as identity primary key,
  at timestamptz not null default clock_timestamp(),
  person_id text references person (id),
  what text not null,
  project_id uuid,
  params jsonb not null default '{}'
);

-- Down Migration
drop table activity;
drop table folder_count;
drop table finding;
drop table check_run;
drop table project;
drop table number_hold;
drop table number_series;
