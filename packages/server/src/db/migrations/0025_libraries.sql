-- Up Migration
-- Places outside of every project that references may lead to: whole paths, as one system writes them.
create table library (
  path text primary key check (path <> ''),
  name text not null,
  version integer not null default 1
);
create unique index library_path_once on library (lower(path));

-- Down Migration
drop table library;
