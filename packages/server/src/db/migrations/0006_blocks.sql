-- Up Migration
-- Blocks of the house: a template holds a copy with the edition it came from, so that its file stands alone.
create table block (
  id text primary key check (id <> ''),
  name text not null check (name <> ''),
  created_at timestamptz not null default now()
);
-- An edition never changes once it is in force: there is no update of it in the program.
create table block_edition (
  block_id text not null references block (id) on delete cascade,
  edition integer not null check (edition > 0),
  body jsonb not null,
  said text not null default '',
  in_force_at timestamptz not null default now(),
  put_by text references person (id),
  primary key (block_id, edition)
);
create table block_draft (
  block_id text primary key references block (id) on delete cascade,
  body jsonb not null,
  version integer not null default 1,
  person_id text references person (id),
  changed_at timestamptz not null default clock_timestamp()
);
-- Paths are made from the block's id, and a file is never another one under its path: editions share them.
create table block_starter (
  block_id text not null references block (id) on delete cascade,
  path text not null,
  bytes bytea not null,
  primary key (block_id, path)
);

-- Down Migration
drop table block_starter;
drop table block_draft;
drop table block_edition;
drop table block;
