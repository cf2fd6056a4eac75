-- Up Migration
-- What the team of a project should know stands at the head of its page, with who wrote it last and when. A project is
-- known by its nest: the picture that could be given to it is gone.
alter table project rename column notes to team_note;
alter table project
  add column team_note_by text references person (id),
  add column team_note_at timestamptz,
  drop column picture;

-- Down Migration
alter table project add column picture bytea, drop column team_note_by, drop column team_note_at;
alter table project rename column team_note to notes;
