-- Up Migration
-- What lay in each folder when it was last listed, compressed: the current state, and nothing of the past.
create table kept_listing (
  project_id uuid not null references project on delete cascade,
  path text collate "C" not null,
  body bytea not null
);
-- Compressed already.
alter table kept_listing alter body set storage external;
create unique index kept_listing_of on kept_listing (project_id, path);

-- What documents refer to, read both ways.
create table document_reference (
  project_id uuid not null references project on delete cascade,
  document text collate "C" not null,
  -- As it stands in the document.
  written text collate "C" not null,
  -- From the project's root; null where it leads out of the project.
  target text collate "C"
);
create index document_reference_from on document_reference (project_id, document);
create index document_reference_to on document_reference (project_id, target) where target is not null;
-- The next check is a whole one, and finds both.
delete from check_memory;

-- Down Migration
drop table document_reference;
drop table kept_listing;
