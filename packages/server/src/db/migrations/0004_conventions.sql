-- Up Migration
-- Conventions are the house's own: a template names those it uses, a project keeps the editions it was started with.
create table convention (
  id text primary key check (id <> ''),
  name text not null check (name <> ''),
  created_at timestamptz not null default now()
);
-- An edition never changes once it is in force: there is no update of it in the program.
create table convention_edition (
  convention_id text not null references convention (id) on delete cascade,
  edition integer not null check (edition > 0),
  body jsonb not null,
  in_force_at timestamptz not null default now(),
  put_by text references person (id),
  primary key (convention_id, edition)
);
create table convention_draft (
  convention_id text primary key references convention (id) on delete cascade,
  body jsonb not null,
  -- Counts the changes: who saves an older one is told.
  version integer not null default 1,
  person_id text references person (id),
  changed_at timestamptz not null default clock_timestamp()
);
create table template_convention (
  template_id text not null references template (id),
  local_id text not null,
  convention_id text not null references convention (id),
  primary key (template_id, local_id)
);
create index template_convention_of on template_convention (convention_id);
alter table project add column conventions jsonb not null default '{}';
create table name_hold (
  project_id uuid not null references project (id) on delete cascade,
  folder text collate "C" not null,
  name text collate "C" not null,
  person_id text not null references person (id) on delete cascade,
  until timestamptz not null,
  primary key (project_id, folder, name)
);
-- Systems that do not tell capitals apart see one file.
create unique index name_hold_once on name_hold (project_id, lower(folder), lower(name));

-- Conventions that came with templates before: each once; where two of one id differ, the later has its template's name added.
create temporary table brought as
  select latest.template_id, c.value ->> 'id' as local_id, c.value as body
  from (select distinct on (template_id) template_id, body from template_edition order by template_id, edition desc) latest,
    jsonb_array_elements(latest.body -> 'conventions') c;
create temporary table named as
  select template_id, local_id, body,
    case when body = first_value(body) over own then local_id else local_id || '-' || template_id end as convention_id
  from brought window own as (partition by local_id order by template_id);
insert into convention (id, name) select distinct on (convention_id) convention_id, coalesce(nullif(body ->> 'name', ''), convention_id) from named order by convention_id, template_id;
insert into convention_edition (convention_id, edition, body) select distinct on (convention_id) convention_id, 1, body || jsonb_build_object('id', convention_id) from named order by convention_id, template_id;
insert into template_convention (template_id, local_id, convention_id) select template_id, local_id, convention_id from named;
update project p set conventions = (select coalesce(jsonb_object_agg(n.local_id, jsonb_build_object('id', n.convention_id, 'edition', 1)), '{}') from named n where n.template_id = p.template_id);
drop table named;
drop table brought;

-- Down Migration
drop table name_hold;
alter table project drop column conventions;
drop table template_convention;
drop table convention_draft;
drop table convention_edition;
drop table convention;
