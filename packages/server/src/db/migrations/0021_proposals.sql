-- Up Migration
-- Plans that somebody who may not carry them out hands to a coordinator: what was asked for, and what became of it.
create table proposal (
  id uuid primary key,
  project_id uuid not null references project on delete cascade,
  person_id text not null references person (id) on delete cascade,
  asked jsonb not null,
  -- Findings it puts right.
  findings integer not null check (findings > 0),
  note text not null default '',
  state text not null default 'open' check (state in ('open', 'taken', 'refused')),
  settled_by text references person (id) on delete set null,
  word text not null default '',
  batch_id uuid,
  at timestamptz not null default clock_timestamp(),
  settled_at timestamptz,
  check ((state = 'open') = (settled_at is null))
);
create index proposal_open on proposal (at) where state = 'open';
create index proposal_person on proposal (person_id, at desc);

-- Down Migration
drop table proposal;
