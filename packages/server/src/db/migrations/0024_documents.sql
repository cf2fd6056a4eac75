-- Up Migration
-- What one document of a family is, where it is more than a file: a folder of its ending, or all files of its name.
alter table family add column document text not null default '' check (document in ('', 'folder', 'stem'));

-- Down Migration
alter table family drop column document;
