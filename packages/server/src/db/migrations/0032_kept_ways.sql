-- Up Migration
-- Ways that are kept with a template: of carrying a project over, and of packing one.
alter table carry_way rename to kept_way;
alter table kept_way add column what text not null default 'carry' check (what in ('carry', 'pack'));
alter table kept_way alter column what drop default;
alter table kept_way drop constraint carry_way_pkey;
alter table kept_way add constraint kept_way_pkey primary key (template_id, what, name);
alter table kept_way rename constraint carry_way_template_id_fkey to kept_way_template_id_fkey;
alter table kept_way rename constraint carry_way_person_id_fkey to kept_way_person_id_fkey;

-- Down Migration
delete from kept_way where what <> 'carry';
alter table kept_way drop constraint kept_way_pkey;
alter table kept_way add constraint carry_way_pkey primary key (template_id, name);
alter table kept_way drop column what;
alter table kept_way rename constraint kept_way_template_id_fkey to carry_way_template_id_fkey;
alter table kept_way rename constraint kept_way_person_id_fkey to carry_way_person_id_fkey;
alter table kept_way rename to carry_way;
