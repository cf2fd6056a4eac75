-- Up Migration
-- Files of somebody's computer on their way to a volume. How far each is, the volume itself says.
create table upload (
  id uuid primary key,
  person_id text not null references person (id) on delete cascade,
  volume text not null,
  -- Made for it in the volume's root.
  folder text not null,
  -- [{"path", "size", "modified"}], in the order in which they are numbered.
  files jsonb not null,
  -- Of what was to be sent: the same again goes on with it.
  fingerprint text not null,
  begun_at timestamptz not null default clock_timestamp(),
  ended_at timestamptz
);
create unique index upload_under_way on upload (person_id, volume, fingerprint) where ended_at is null;
create index upload_of_volume on upload (volume) where ended_at is null;

-- Down Migration
drop table upload;
