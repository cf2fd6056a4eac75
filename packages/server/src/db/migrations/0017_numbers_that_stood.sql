-- Up Migration
-- A number that stood on a disk is kept when its project takes another one: names of that number may be anywhere. Its own
-- project may take it again; for others a coordinator releases it.
alter table number_reserved add column project_id uuid references project (id) on delete set null;

-- Down Migration
alter table number_reserved drop column project_id;
