-- Up Migration
-- Ways of carrying a project over that are kept with a template: what comes along, and what it is called.
create table carry_way (
  template_id text not null references template (id) on delete cascade,
  name text not null,
  way jsonb not null,
  person_id text references person (id) on delete set null,
  at timestamptz not null default clock_timestamp(),
  primary key (template_id, name)
);

-- Down Migration
drop table carry_way;
