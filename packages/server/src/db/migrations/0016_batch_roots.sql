-- Up Migration
-- Folders that a batch works in beside its project's own one, by the names that its journal has for them.
create table batch_root (
  batch_id uuid not null references batch (id) on delete cascade,
  root text not null,
  volume text not null,
  folder text not null,
  primary key (batch_id, root)
);

-- Down Migration
drop table batch_root;
