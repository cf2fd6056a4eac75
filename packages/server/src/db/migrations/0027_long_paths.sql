-- Up Migration
-- An entry of an index has some 2,700 bytes at most, and paths may have more: a check that met one could not be stored. 500 characters tell nearly all apart; what is equal so far is compared whole.
drop index finding_in_order;
create index finding_in_order on finding (project_id, left(path, 500)) where until_at is null;
drop index folder_count_of;
create index folder_count_of on folder_count (project_id, left(path, 500));
drop index kept_listing_of;
create unique index kept_listing_of on kept_listing (project_id, md5(path));
drop index document_reference_from;
create index document_reference_from on document_reference (project_id, left(document, 500));
drop index document_reference_to;
create index document_reference_to on document_reference (project_id, left(target, 500)) where target is not null;

-- Down Migration
drop index document_reference_to;
create index document_reference_to on document_reference (project_id, target) where target is not null;
drop index document_reference_from;
create index document_reference_from on document_reference (project_id, document);
drop index kept_listing_of;
create unique index kept_listing_of on kept_listing (project_id, path);
drop index folder_count_of;
create index folder_count_of on folder_count (project_id, path);
drop index finding_in_order;
create index finding_in_order on finding (project_id, path, rule, id) where until_at is null;
