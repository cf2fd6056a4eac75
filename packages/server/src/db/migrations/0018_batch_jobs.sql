-- Up Migration
-- A batch is a job: its row says what was asked for, and how far it is. Whoever answers requests, and a queue, only wake who does it.
alter table batch
  -- What was asked for, to the letter, as its fingerprint was made of it: planned again by whoever does it. Null for
  -- batches of the form before.
  add column asked json,
  -- Whether what it makes of the project stands in the row: before that nothing of it is on a disk.
  add column claimed boolean not null default true,
  add column tries integer not null default 0,
  -- How a batch that stopped half way is being settled, and by whom.
  add column settling jsonb,
  add column done integer not null default 0,
  add column steps integer not null default 0,
  add column stop_asked boolean not null default false,
  -- Why nothing was done, as it is told to who asked; whether it was.
  add column refusal jsonb,
  add column told boolean not null default false,
  -- When its journal and what it kept were cleared away: it cannot be undone any more.
  add column swept_at timestamptz;
alter table batch drop constraint batch_state_check;
alter table batch add constraint batch_state_check check (state in ('running', 'paused', 'done', 'taken-back', 'closed', 'refused'));
-- Bytes that work under a lease is going to write: what is free on a volume is shared out once.
create table space_reserved (
  work uuid not null,
  volume text not null,
  bytes bigint not null check (bytes >= 0),
  primary key (work, volume)
);
-- What a check has seen may be changed while it runs: then it is done once more.
alter table check_run add column again boolean not null default false;
-- When a project's old journals were last looked for.
alter table project add column swept_at timestamptz;

-- Down Migration
alter table check_run drop column again;
alter table project drop column swept_at;
drop table space_reserved;
delete from batch where state = 'refused';
alter table batch drop constraint batch_state_check;
alter table batch add constraint batch_state_check check (state in ('running', 'paused', 'done', 'taken-back', 'closed'));
alter table batch drop column asked, drop column claimed, drop column tries, drop column settling, drop column done, drop column steps,
  drop column stop_asked, drop column refusal, drop column told, drop column swept_at;
