-- Up Migration
-- A batch that can neither be finished nor taken back whole is closed: what stayed is listed in its journal.
alter table batch drop constraint batch_state_check;
alter table batch add constraint batch_state_check check (state in ('running', 'paused', 'done', 'taken-back', 'closed'));

-- Down Migration
