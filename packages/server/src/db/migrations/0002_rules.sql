-- Up Migration
create table client (
  code text primary key check (code ~ '^[A-Za-z0-9-]{1,12}$'),
  name text not null check (name <> ''),
  retired boolean not null default false
);
create table family (
  name text primary key check (name <> ''),
  extensions text[] not null,
  companions text[] not null default '{}',
  place integer not null default 0
);
create table abbreviation (
  short text not null,
  long text primary key
);
create table banned_word (
  word text primary key check (word <> '')
);
create table template (
  id text primary key,
  name text not null check (name <> ''),
  created_at timestamptz not null default now()
);
-- An edition never changes once it is in force: there is no update of it in the program.
create table template_edition (
  template_id text not null references template (id),
  edition integer not null check (edition > 0),
  body jsonb not null,
  in_force_at timestamptz not null default now(),
  primary key (template_id, edition)
);
create table starter_file (
  template_id text not null,
  edition integer not null,
  path text not null,
  bytes bytea not null,
  primary key (template_id, edition, path),
  foreign key (template_id, edition) references template_edition (template_id, edition)
);

-- Down Migration
drop table starter_file;
drop table template_edition;
drop table template;
drop table banned_word;
drop table abbreviation;
drop table family;
drop table client;
