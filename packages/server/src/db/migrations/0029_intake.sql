-- Up Migration
-- Volumes on which loose material arrives.
create table volume_inbox (
  volume text primary key,
  at timestamptz not null default clock_timestamp()
);

-- What the content of loose files told, for one project: read once, planned with as often as one likes.
create table intake (
  project_id uuid not null references project (id) on delete cascade,
  volume text not null,
  folder text not null,
  found bytea not null,
  read_at timestamptz not null default clock_timestamp(),
  brought_at timestamptz,
  primary key (project_id, volume, folder)
);
create index intake_place on intake (volume, folder, brought_at desc);

-- Down Migration
drop table intake;
drop table volume_inbox;
