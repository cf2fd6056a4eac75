-- Up Migration
-- Lists are edited by several people: each entry counts its changes, and codes that differ in case alone are one.
alter table client add column colour text not null default '', add column notes text not null default '', add column version integer not null default 1, add column merged_into text references client (code);
create unique index client_code_once on client (lower(code));
alter table family add column version integer not null default 1;
create unique index family_name_once on family (lower(name));
alter table abbreviation add column version integer not null default 1;
create unique index abbreviation_long_once on abbreviation (lower(long));
create unique index abbreviation_short_once on abbreviation (lower(short));
alter table banned_word add column version integer not null default 1;
create unique index banned_word_once on banned_word (lower(word));
alter table person add column version integer not null default 1, add column left_at timestamptz;

-- Project numbers. The series' row is locked while one is given out; what became of every counted number is told by its events.
alter table number_series drop column digits, add column pattern text not null default '{yy}{n:000}', add column reset text not null default 'yearly', add column start integer not null default 1 check (start >= 0), add column kinds jsonb not null default '{}', add column version integer not null default 1;
create table number_counter (
  scope text primary key,
  last integer not null
);
create table number_reserved (
  number text primary key check (number <> ''),
  why text not null,
  person_id text references person (id),
  at timestamptz not null default clock_timestamp()
);
create table number_event (
  id bigint generated always as identity primary key,
  number text not null,
  scope text not null,
  n integer not null,
  what text not null check (what in ('held', 'given-back', 'expired', 'used', 'freed', 'reserved', 'released', 'passed-over')),
  person_id text references person (id),
  at timestamptz not null default clock_timestamp(),
  why text not null default ''
);
create index number_event_of on number_event (scope, n, id desc);
create index number_event_number on number_event (number, id desc);

-- Ways in: links that work once, keys for scripts, attempts counted. Of links and keys only a hash is kept.
create table access_link (
  hash text primary key,
  purpose text not null check (purpose in ('first', 'invite', 'reset')),
  person_id text references person (id) on delete cascade,
  made_by text references person (id),
  made_at timestamptz not null default clock_timestamp(),
  expires_at timestamptz not null,
  used_at timestamptz
);
create index access_link_person on access_link (person_id);
create table access_key (
  id uuid primary key,
  person_id text not null references person (id) on delete cascade,
  name text not null check (name <> ''),
  head text not null,
  hash text not null unique,
  made_at timestamptz not null default clock_timestamp(),
  expires_at timestamptz,
  last_used_at timestamptz,
  revoked_at timestamptz
);
create index access_key_person on access_key (person_id);
create table sign_in_attempt (
  key text primary key,
  since timestamptz not null default clock_timestamp(),
  count integer not null default 1
);

-- Mails: written here first, sent from here. What was sent keeps no text, for links stand in it.
create table mail (
  id bigint generated always as identity primary key,
  at timestamptz not null default clock_timestamp(),
  recipient text not null,
  subject text not null,
  body text not null,
  state text not null default 'waiting' check (state in ('waiting', 'sent', 'failed', 'kept')),
  tries integer not null default 0,
  said text not null default ''
);
create index mail_waiting on mail (id) where state = 'waiting';

create table volume_prefix (
  volume text not null,
  system text not null check (system in ('windows', 'macos', 'linux')),
  prefix text not null check (prefix <> ''),
  primary key (volume, system)
);

-- Activity is searched by words, and kept when people leave.
alter table activity add column subject text, add column asked_from text;
alter table activity add column words tsvector generated always as (to_tsvector('simple', what || ' ' || coalesce(subject, '') || ' ' || coalesce(asked_from, '')) || jsonb_to_tsvector('simple', params, '["string", "numeric"]')) stored;
create index activity_words on activity using gin (words);
create index activity_subject on activity (subject, id desc);
create index activity_person on activity (person_id, id desc);
create index activity_what on activity (what, id desc);
create index activity_at on activity (at);

-- Down Migration
alter table activity drop column words, drop column asked_from, drop column subject;
drop table volume_prefix;
drop table mail;
drop table sign_in_attempt;
drop table access_key;
drop table access_link;
drop table number_event;
drop table number_reserved;
drop table number_counter;
