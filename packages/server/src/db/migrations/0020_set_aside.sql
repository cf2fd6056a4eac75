-- Up Migration
-- What a batch keeps so that it can be undone, and what that takes: what was set aside, and what gave way to a new content.
alter table batch
  add column kept_files integer not null default 0,
  add column kept_bytes bigint not null default 0;
create index batch_kept on batch (kept_bytes desc) where kept_files > 0 and swept_at is null;

-- Down Migration
alter table batch drop column kept_files, drop column kept_bytes;
