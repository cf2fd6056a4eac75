-- Up Migration
-- What the house means by each of its eight marks; a mark without words is free.
create table mark_meaning (
  mark text primary key check (mark in ('clay', 'moss', 'slate', 'plum', 'straw', 'teal', 'rose', 'ink')),
  words text check (words = btrim(words) and length(words) between 1 and 40)
);
create unique index mark_meaning_words on mark_meaning (lower(words));
insert into mark_meaning (mark, words) values
  ('moss', 'arrives'), ('plum', 'thought out'), ('clay', 'in work'), ('rose', 'goes out'),
  ('slate', 'paperwork'), ('ink', 'generated'), ('straw', null), ('teal', null);

-- Down Migration
drop table mark_meaning;
