-- Up Migration
-- Volumes whose projects get a second copy of all that is brought in, on another volume.
create table volume_double (
  volume text primary key,
  double text not null check (double <> volume),
  at timestamptz not null default clock_timestamp()
);

-- Down Migration
drop table volume_double;
