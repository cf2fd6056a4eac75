-- Up Migration
-- A project, or a part of it, packed for somebody else or for the shelf. The row is the job: a queue only wakes whoever works.
create table package (
  id uuid primary key,
  project_id uuid not null references project (id) on delete cascade,
  kind text not null check (kind in ('zip', 'bag', 'bag-zip')),
  purpose text not null check (purpose in ('handover', 'archive')),
  -- What was asked for, to the letter.
  asked jsonb not null,
  -- Stands for what was shown; null once it was begun with.
  shown text,
  volume text not null,
  folder text not null,
  name text not null,
  state text not null check (state in ('queued', 'packing', 'proving', 'waits', 'stopped', 'done', 'failed')),
  may_leave_out boolean not null default false,
  stop_asked boolean not null default false,
  files integer not null,
  bytes bigint not null,
  done_files integer not null default 0,
  done_bytes bigint not null default 0,
  size bigint,
  sha256 text,
  left_out jsonb not null default '[]',
  not_packed jsonb not null default '[]',
  refusal jsonb,
  request text,
  asked_by text references person (id) on delete set null,
  asked_at timestamptz not null default clock_timestamp(),
  ended_at timestamptz,
  -- What is to be done with it once it is finished: read again, the original freed, the project brought back; and why that was not done.
  act jsonb,
  act_refusal jsonb,
  proved_at timestamptz,
  verdict jsonb,
  -- What the project was when it went to the archive: that is what it is again when it is back.
  state_before text,
  freed_at timestamptz,
  freed_bytes bigint,
  back_at timestamptz
);
-- Systems that do not tell capitals apart see one file.
create unique index package_place_once on package (volume, lower(folder), lower(name));
create index package_of_project on package (project_id, asked_at desc);
create index package_to_do on package (id) where state in ('queued', 'packing', 'proving') or act is not null;

-- What is in each, folder by folder: the names below one another, to be found without opening it.
create table package_folder (
  package_id uuid not null references package (id) on delete cascade,
  folder text collate "C" not null,
  names text not null,
  primary key (package_id, folder)
);

-- Ways to get one package, for who has no account. Only hashes are kept: of what stands in the link, and of what it is fetched by.
create table package_link (
  id uuid primary key,
  package_id uuid not null references package (id) on delete cascade,
  hash text not null unique,
  pass_hash text not null unique,
  -- Of the word that goes with it; null where none does.
  word_hash text,
  made_by text references person (id) on delete set null,
  made_at timestamptz not null default clock_timestamp(),
  expires_at timestamptz not null,
  opened integer not null default 0,
  last_at timestamptz
);
create index package_link_of on package_link (package_id, made_at);

-- Down Migration
drop table package_link;
drop table package_folder;
drop table package;
