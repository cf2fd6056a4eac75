-- Up Migration
-- Plans that begin at an hour, when nobody is at the files: what was shown, and what became of it.
create table later_repair (
  id uuid primary key,
  project_id uuid not null references project on delete cascade,
  person_id text not null references person (id) on delete cascade,
  asked jsonb not null,
  -- By finding, where what it is about was to come to be; one that waited until it was quiet has none.
  shown jsonb not null,
  begins_at timestamptz not null,
  state text not null default 'waiting' check (state in ('waiting', 'begun', 'over', 'dropped')),
  -- What came of it, in words.
  said text not null default '',
  at timestamptz not null default clock_timestamp(),
  begun_at timestamptz
);
create index later_repair_due on later_repair (begins_at) where state in ('waiting', 'begun');
create index later_repair_project on later_repair (project_id, begins_at desc);

-- Down Migration
drop table later_repair;
