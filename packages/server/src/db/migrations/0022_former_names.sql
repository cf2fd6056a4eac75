-- Up Migration
-- What files and folders were called before a change gave them another name: whoever remembers the old one finds it.
create table former_name (
  id bigint generated always as identity primary key,
  project_id uuid not null references project on delete cascade,
  batch_id uuid not null references batch on delete cascade,
  before text not null,
  after text not null,
  at timestamptz not null default clock_timestamp()
);
create index former_name_batch on former_name (batch_id);

-- Down Migration
drop table former_name;
