-- Up Migration
-- A finding lives in its project from the check that first saw it to the one that did not any more: what is new and what was solved is read off it.
alter table finding rename to finding_of_check;
create table finding (
  project_id uuid not null references project (id) on delete cascade,
  id text not null,
  rule text not null,
  weight text not null check (weight in ('must', 'should', 'note')),
  path text collate "C" not null,
  -- Initials that stand in its name.
  person text,
  -- When what it is about was last written, milliseconds since 1970.
  modified bigint not null default 0,
  -- A hash of its body: two are compared by it.
  print bigint,
  body jsonb not null,
  since_at timestamptz not null,
  until_at timestamptz
);
create unique index finding_open on finding (project_id, id) where until_at is null;
create index finding_in_order on finding (project_id, path, rule, id) where until_at is null;
create index finding_solved on finding (project_id, until_at) where until_at is not null;
insert into finding (project_id, id, rule, weight, path, body, since_at)
  select distinct on (k.project_id, f.id) k.project_id, f.id, f.rule, f.weight, f.path, f.body, k.started_at
  from finding_of_check f join check_run k on k.id = f.check_id join project p on p.last_check = k.id;
drop table finding_of_check;

-- What lay in each folder when it was last looked at.
alter table folder_count rename to folder_count_of_check;
create table folder_count (
  project_id uuid not null references project (id) on delete cascade,
  path text collate "C" not null,
  files integer not null,
  bytes bigint not null,
  state text not null,
  families jsonb not null default '{}'
);
create index folder_count_of on folder_count (project_id, path);
insert into folder_count (project_id, path, files, bytes, state)
  select p.id, f.path, f.files, f.bytes, f.state from folder_count_of_check f join project p on p.last_check = f.check_id;
drop table folder_count_of_check;

alter table check_run drop constraint check_run_state_check;
alter table check_run
  add constraint check_run_state_check check (state in ('queued', 'running', 'done', 'failed', 'cancelled')),
  add column what text not null default 'whole' check (what in ('whole', 'quick')),
  add column stage text not null default 'walking',
  -- Whoever runs it says so from time to time: one that falls silent was killed, and another takes over.
  add column seen_at timestamptz,
  -- Who has it in hand: one that was taken over has no say in it any more.
  add column runner uuid,
  add column stop boolean not null default false,
  add column appeared integer not null default 0,
  add column solved integer not null default 0,
  -- Bytes by folder below the root and by family, and those in folders for generated files.
  add column sizes jsonb not null default '{}',
  add column cleared bigint not null default 0;
-- One at a time in a project, however many ask.
update check_run set state = 'failed', said = array['The server was renewed while this check ran. Check again.'], ended_at = clock_timestamp() where state in ('queued', 'running');
create unique index check_run_open on check_run (project_id) where state in ('queued', 'running');
create index check_run_silent on check_run (seen_at) where state in ('queued', 'running');

-- What a check remembers for the next quick one, and what is known of files that were looked into. Thrown away at will.
create table check_memory (
  project_id uuid primary key references project (id) on delete cascade,
  -- Of the rules it was made by: under others nothing of it holds.
  rules text not null,
  part bytea not null,
  looked bytea not null
);
-- How far a check was when it was left.
create table check_gathered (
  check_id uuid primary key references check_run (id) on delete cascade,
  body bytea not null
);

-- Findings accepted for a reason, by a person, until a date; those of a baseline until what they are about is touched.
create table exception (
  project_id uuid not null references project (id) on delete cascade,
  finding_id text not null,
  reason text not null check (reason <> ''),
  person_id text references person (id),
  at timestamptz not null default clock_timestamp(),
  until date,
  baseline boolean not null default false,
  modified bigint not null default 0,
  primary key (project_id, finding_id)
);
create index exception_until on exception (until) where until is not null;

-- Who puts a finding right, and what was said of it.
create table finding_mark (
  project_id uuid not null references project (id) on delete cascade,
  finding_id text not null,
  person_id text references person (id) on delete set null,
  note text not null default '',
  by text references person (id) on delete set null,
  at timestamptz not null default clock_timestamp(),
  primary key (project_id, finding_id)
);
create index finding_mark_person on finding_mark (person_id) where person_id is not null;

-- Checks of folders that only one computer sees, handed in by who works there.
create table handed_in (
  id uuid primary key,
  project_id uuid not null references project (id) on delete cascade,
  person_id text references person (id) on delete set null,
  at timestamptz not null default clock_timestamp(),
  source text not null,
  files integer not null,
  folders integer not null,
  findings jsonb not null
);
create index handed_in_of on handed_in (project_id, at desc);

-- A link to one person's findings, for who has no account at hand. Only a hash is kept.
create table finding_link (
  hash text primary key,
  person_id text not null references person (id) on delete cascade,
  made_by text references person (id) on delete set null,
  made_at timestamptz not null default clock_timestamp(),
  expires_at timestamptz not null
);

-- How often a project is checked by itself, in minutes.
alter table project add column check_every integer check (check_every >= 15);

-- Down Migration
alter table project drop column check_every;
drop table finding_link;
drop table handed_in;
drop table finding_mark;
drop table exception;
drop table check_gathered;
drop table check_memory;
drop index check_run_silent;
drop index check_run_open;
alter table check_run drop column cleared, drop column sizes, drop column solved, drop column appeared, drop column stop, drop column runner, drop column seen_at, drop column stage, drop column what;
update check_run set state = 'failed' where state = 'cancelled';
alter table check_run drop constraint check_run_state_check;
alter table check_run add constraint check_run_state_check check (state in ('queued', 'running', 'done', 'failed'));
drop table finding;
drop table folder_count;
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
