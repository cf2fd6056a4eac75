-- Up Migration
-- People who may sign in, and what the sign-in library keeps: column names are mapped in sign-in/auth.ts.
create table person (
  id text primary key,
  name text not null check (name <> ''),
  email text not null unique,
  email_verified boolean not null default false,
  image text,
  initials text not null unique check (initials ~ '^[A-Z]{1,4}$'),
  role text not null check (role in ('coordinator', 'artist', 'lead')),
  does text not null default '',
  retired boolean not null default false,
  created_at timestamptz not null default now(),
  updated_at timestamptz not null default now()
);
create table session (
  id text primary key,
  token text not null unique,
  person_id text not null references person (id) on delete cascade,
  expires_at timestamptz not null,
  ip_address text,
  user_agent text,
  created_at timestamptz not null default now(),
  updated_at timestamptz not null default now()
);
create index session_person on session (person_id);
create table credential (
  id text primary key,
  account_id text not null,
  provider_id text not null,
  person_id text not null references person (id) on delete cascade,
  password text,
  access_token text,
  refresh_token text,
  id_token text,
  scope text,
  access_token_expires_at timestamptz,
  refresh_token_expires_at timestamptz,
  created_at timestamptz not null default now(),
  updated_at timestamptz not null default now(),
  unique (provider_id, account_id)
);
create index credential_person on credential (person_id);
create table verification (
  id text primary key,
  identifier text not null,
  value text not null,
  expires_at timestamptz not null,
  created_at timestamptz not null default now(),
  updated_at timestamptz not null default now()
);
create index verification_identifier on verification (identifier);

-- Down Migration
drop table verification;
drop table credential;
drop table session;
drop table person;
