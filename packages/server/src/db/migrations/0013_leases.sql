-- Up Migration
-- Who is at a start or a batch, and until when that holds unless it is renewed: by the database's clock.
create table lease (
  work uuid primary key,
  owner uuid not null,
  until timestamptz not null
);

-- Down Migration
drop table lease;
