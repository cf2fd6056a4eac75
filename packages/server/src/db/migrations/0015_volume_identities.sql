-- Up Migration
-- What each volume is known by: the same stands in a file in its root. Made when a coordinator takes the volume up.
create table volume_identity (
  volume text primary key,
  id uuid not null unique,
  at timestamptz not null default clock_timestamp()
);

-- Down Migration
drop table volume_identity;
