
SET statement_timeout = 0;
SET lock_timeout = 0;
SET idle_in_transaction_session_timeout = 0;
SET client_encoding = 'UTF8';
SET standard_conforming_strings = on;
SELECT pg_catalog.set_config('search_path', '', false);
SET check_function_bodies = false;
SET xmloption = content;
SET client_min_messages = warning;
SET row_security = off;

SET default_tablespace = '';

SET default_table_access_method = heap;

CREATE TABLE public.abbreviation (
    short text NOT NULL,
    long text NOT NULL,
    version integer DEFAULT 1 NOT NULL
);

CREATE TABLE public.access_key (
    id uuid NOT NULL,
    person_id text NOT NULL,
    name text NOT NULL,
    head text NOT NULL,
    hash text NOT NULL,
    made_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    expires_at timestamp with time zone,
    last_used_at timestamp with time zone,
    revoked_at timestamp with time zone,
    CONSTRAINT access_key_name_check CHECK ((name <> ''::text))
);

CREATE TABLE public.access_link (
    hash text NOT NULL,
    purpose text NOT NULL,
    person_id text,
    made_by text,
    made_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    expires_at timestamp with time zone NOT NULL,
    used_at timestamp with time zone,
    CONSTRAINT access_link_purpose_check CHECK ((purpose = ANY (ARRAY['first'::text, 'invite'::text, 'reset'::text])))
);

CREATE TABLE public.activity (
    id bigint NOT NULL,
    at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    person_id text,
    what text NOT NULL,
    project_id uuid,
    params jsonb DEFAULT '{}'::jsonb NOT NULL,
    subject text,
    asked_from text,
    words tsvector GENERATED ALWAYS AS ((to_tsvector('simple'::regconfig, ((((what || ' '::text) || COALESCE(subject, ''::text)) || ' '::text) || COALESCE(asked_from, ''::text))) || jsonb_to_tsvector('simple'::regconfig, params, '["string", "numeric"]'::jsonb))) STORED
);

ALTER TABLE public.activity ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.activity_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);

CREATE TABLE public.banned_word (
    word text NOT NULL,
    version integer DEFAULT 1 NOT NULL,
    CONSTRAINT banned_word_word_check CHECK ((word <> ''::text))
);

CREATE TABLE public.batch (
    id uuid NOT NULL,
    project_id uuid NOT NULL,
    what text NOT NULL,
    person_id text,
    at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    ended_at timestamp with time zone,
    state text NOT NULL,
    why text DEFAULT ''::text NOT NULL,
    changes integer DEFAULT 0 NOT NULL,
    undoes uuid,
    shape_from jsonb NOT NULL,
    shape_to jsonb NOT NULL,
    CONSTRAINT batch_state_check CHECK ((state = ANY (ARRAY['running'::text, 'paused'::text, 'done'::text, 'taken-back'::text])))
);

CREATE TABLE public.block (
    id text NOT NULL,
    name text NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    CONSTRAINT block_id_check CHECK ((id <> ''::text)),
    CONSTRAINT block_name_check CHECK ((name <> ''::text))
);

CREATE TABLE public.block_draft (
    block_id text NOT NULL,
    body jsonb NOT NULL,
    version integer DEFAULT 1 NOT NULL,
    person_id text,
    changed_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL
);

CREATE TABLE public.block_edition (
    block_id text NOT NULL,
    edition integer NOT NULL,
    body jsonb NOT NULL,
    said text DEFAULT ''::text NOT NULL,
    in_force_at timestamp with time zone DEFAULT now() NOT NULL,
    put_by text,
    CONSTRAINT block_edition_edition_check CHECK ((edition > 0))
);

CREATE TABLE public.block_starter (
    block_id text NOT NULL,
    path text NOT NULL,
    bytes bytea NOT NULL
);

CREATE TABLE public.check_gathered (
    check_id uuid NOT NULL,
    body bytea NOT NULL
);

CREATE TABLE public.check_memory (
    project_id uuid NOT NULL,
    rules text NOT NULL,
    part bytea NOT NULL,
    looked bytea NOT NULL
);

CREATE TABLE public.check_run (
    id uuid NOT NULL,
    project_id uuid NOT NULL,
    state text NOT NULL,
    files integer DEFAULT 0 NOT NULL,
    folders integer DEFAULT 0 NOT NULL,
    bytes bigint DEFAULT 0 NOT NULL,
    must integer DEFAULT 0 NOT NULL,
    should integer DEFAULT 0 NOT NULL,
    note integer DEFAULT 0 NOT NULL,
    said text[] DEFAULT '{}'::text[] NOT NULL,
    asked_by text,
    started_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    ended_at timestamp with time zone,
    what text DEFAULT 'whole'::text NOT NULL,
    stage text DEFAULT 'walking'::text NOT NULL,
    seen_at timestamp with time zone,
    runner uuid,
    stop boolean DEFAULT false NOT NULL,
    appeared integer DEFAULT 0 NOT NULL,
    solved integer DEFAULT 0 NOT NULL,
    sizes jsonb DEFAULT '{}'::jsonb NOT NULL,
    cleared bigint DEFAULT 0 NOT NULL,
    CONSTRAINT check_run_state_check CHECK ((state = ANY (ARRAY['queued'::text, 'running'::text, 'done'::text, 'failed'::text, 'cancelled'::text]))),
    CONSTRAINT check_run_what_check CHECK ((what = ANY (ARRAY['whole'::text, 'quick'::text])))
);

CREATE TABLE public.client (
    code text NOT NULL,
    name text NOT NULL,
    retired boolean DEFAULT false NOT NULL,
    colour text DEFAULT ''::text NOT NULL,
    notes text DEFAULT ''::text NOT NULL,
    version integer DEFAULT 1 NOT NULL,
    merged_into text,
    CONSTRAINT client_code_check CHECK ((code ~ '^[A-Za-z0-9-]{1,12}$'::text)),
    CONSTRAINT client_name_check CHECK ((name <> ''::text))
);

CREATE TABLE public.convention (
    id text NOT NULL,
    name text NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    CONSTRAINT convention_id_check CHECK ((id <> ''::text)),
    CONSTRAINT convention_name_check CHECK ((name <> ''::text))
);

CREATE TABLE public.convention_draft (
    convention_id text NOT NULL,
    body jsonb NOT NULL,
    version integer DEFAULT 1 NOT NULL,
    person_id text,
    changed_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL
);

CREATE TABLE public.convention_edition (
    convention_id text NOT NULL,
    edition integer NOT NULL,
    body jsonb NOT NULL,
    in_force_at timestamp with time zone DEFAULT now() NOT NULL,
    put_by text,
    CONSTRAINT convention_edition_edition_check CHECK ((edition > 0))
);

CREATE TABLE public.copy_left (
    project_id uuid NOT NULL,
    volume text NOT NULL,
    folder text NOT NULL
);

CREATE TABLE public.credential (
    id text NOT NULL,
    account_id text NOT NULL,
    provider_id text NOT NULL,
    person_id text NOT NULL,
    password text,
    access_token text,
    refresh_token text,
    id_token text,
    scope text,
    access_token_expires_at timestamp with time zone,
    refresh_token_expires_at timestamp with time zone,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    updated_at timestamp with time zone DEFAULT now() NOT NULL
);

CREATE TABLE public.draft_starter (
    template_id text NOT NULL,
    path text NOT NULL,
    bytes bytea NOT NULL
);

CREATE TABLE public.exception (
    project_id uuid NOT NULL,
    finding_id text NOT NULL,
    reason text NOT NULL,
    person_id text,
    at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    until date,
    baseline boolean DEFAULT false NOT NULL,
    modified bigint DEFAULT 0 NOT NULL,
    CONSTRAINT exception_reason_check CHECK ((reason <> ''::text))
);

CREATE TABLE public.family (
    name text NOT NULL,
    extensions text[] NOT NULL,
    companions text[] DEFAULT '{}'::text[] NOT NULL,
    place integer DEFAULT 0 NOT NULL,
    version integer DEFAULT 1 NOT NULL,
    CONSTRAINT family_name_check CHECK ((name <> ''::text))
);

CREATE TABLE public.finding (
    project_id uuid NOT NULL,
    id text NOT NULL,
    rule text NOT NULL,
    weight text NOT NULL,
    path text NOT NULL COLLATE pg_catalog."C",
    person text,
    modified bigint DEFAULT 0 NOT NULL,
    print bigint,
    body jsonb NOT NULL,
    since_at timestamp with time zone NOT NULL,
    until_at timestamp with time zone,
    CONSTRAINT finding_weight_check1 CHECK ((weight = ANY (ARRAY['must'::text, 'should'::text, 'note'::text])))
);

CREATE TABLE public.finding_link (
    hash text NOT NULL,
    person_id text NOT NULL,
    made_by text,
    made_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    expires_at timestamp with time zone NOT NULL
);

CREATE TABLE public.finding_mark (
    project_id uuid NOT NULL,
    finding_id text NOT NULL,
    person_id text,
    note text DEFAULT ''::text NOT NULL,
    by text,
    at timestamp with time zone DEFAULT clock_timestamp() NOT NULL
);

CREATE TABLE public.first_day (
    project_id uuid NOT NULL,
    place integer NOT NULL,
    words text NOT NULL,
    done_by text,
    done_at timestamp with time zone
);

CREATE TABLE public.folder_count (
    project_id uuid NOT NULL,
    path text NOT NULL COLLATE pg_catalog."C",
    files integer NOT NULL,
    bytes bigint NOT NULL,
    state text NOT NULL,
    families jsonb DEFAULT '{}'::jsonb NOT NULL
);

CREATE TABLE public.handed_in (
    id uuid NOT NULL,
    project_id uuid NOT NULL,
    person_id text,
    at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    source text NOT NULL,
    files integer NOT NULL,
    folders integer NOT NULL,
    findings jsonb NOT NULL
);

CREATE TABLE public.mail (
    id bigint NOT NULL,
    at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    recipient text NOT NULL,
    subject text NOT NULL,
    body text NOT NULL,
    state text DEFAULT 'waiting'::text NOT NULL,
    tries integer DEFAULT 0 NOT NULL,
    said text DEFAULT ''::text NOT NULL,
    CONSTRAINT mail_state_check CHECK ((state = ANY (ARRAY['waiting'::text, 'sent'::text, 'failed'::text, 'kept'::text])))
);

ALTER TABLE public.mail ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.mail_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);

CREATE TABLE public.migration (
    id integer NOT NULL,
    name character varying(255) NOT NULL,
    run_on timestamp without time zone NOT NULL
);

CREATE SEQUENCE public.migration_id_seq
    AS integer
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1;

ALTER SEQUENCE public.migration_id_seq OWNED BY public.migration.id;

CREATE TABLE public.name_hold (
    project_id uuid NOT NULL,
    folder text NOT NULL COLLATE pg_catalog."C",
    name text NOT NULL COLLATE pg_catalog."C",
    person_id text NOT NULL,
    until timestamp with time zone NOT NULL
);

CREATE TABLE public.number_counter (
    scope text NOT NULL,
    last integer NOT NULL
);

CREATE TABLE public.number_event (
    id bigint NOT NULL,
    number text NOT NULL,
    scope text NOT NULL,
    n integer NOT NULL,
    what text NOT NULL,
    person_id text,
    at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    why text DEFAULT ''::text NOT NULL,
    CONSTRAINT number_event_what_check CHECK ((what = ANY (ARRAY['held'::text, 'given-back'::text, 'expired'::text, 'used'::text, 'freed'::text, 'reserved'::text, 'released'::text, 'passed-over'::text])))
);

ALTER TABLE public.number_event ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.number_event_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);

CREATE TABLE public.number_hold (
    number text NOT NULL,
    person_id text NOT NULL,
    until timestamp with time zone NOT NULL
);

CREATE TABLE public.number_reserved (
    number text NOT NULL,
    why text NOT NULL,
    person_id text,
    at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    CONSTRAINT number_reserved_number_check CHECK ((number <> ''::text))
);

CREATE TABLE public.number_series (
    name text NOT NULL,
    pattern text DEFAULT '{yy}{n:000}'::text NOT NULL,
    reset text DEFAULT 'yearly'::text NOT NULL,
    start integer DEFAULT 1 NOT NULL,
    kinds jsonb DEFAULT '{}'::jsonb NOT NULL,
    version integer DEFAULT 1 NOT NULL,
    CONSTRAINT number_series_start_check CHECK ((start >= 0))
);

CREATE TABLE public.person (
    id text NOT NULL,
    name text NOT NULL,
    email text NOT NULL,
    email_verified boolean DEFAULT false NOT NULL,
    image text,
    initials text NOT NULL,
    role text NOT NULL,
    does text DEFAULT ''::text NOT NULL,
    retired boolean DEFAULT false NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    updated_at timestamp with time zone DEFAULT now() NOT NULL,
    version integer DEFAULT 1 NOT NULL,
    left_at timestamp with time zone,
    CONSTRAINT person_initials_check CHECK ((initials ~ '^[A-Z]{1,4}$'::text)),
    CONSTRAINT person_name_check CHECK ((name <> ''::text)),
    CONSTRAINT person_role_check CHECK ((role = ANY (ARRAY['coordinator'::text, 'artist'::text, 'lead'::text])))
);

CREATE TABLE public.project (
    id uuid NOT NULL,
    number text NOT NULL,
    client_code text,
    title text DEFAULT ''::text NOT NULL,
    template_id text NOT NULL,
    edition integer NOT NULL,
    "values" jsonb NOT NULL,
    volume text NOT NULL,
    folder text NOT NULL,
    state text NOT NULL,
    started_by text NOT NULL,
    started_at timestamp with time zone DEFAULT now() NOT NULL,
    conventions jsonb DEFAULT '{}'::jsonb NOT NULL,
    last_check uuid,
    notes text DEFAULT ''::text NOT NULL,
    state_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    adjusted jsonb DEFAULT '{}'::jsonb NOT NULL,
    own jsonb DEFAULT '{}'::jsonb NOT NULL,
    settings jsonb DEFAULT '{}'::jsonb NOT NULL,
    picture bytea,
    version integer DEFAULT 1 NOT NULL,
    check_every integer,
    CONSTRAINT project_check_every_check CHECK ((check_every >= 15)),
    CONSTRAINT project_number_check CHECK ((number <> ''::text)),
    CONSTRAINT project_state_check CHECK ((state = ANY (ARRAY['starting'::text, 'running'::text, 'waiting'::text, 'closed'::text, 'packed'::text, 'failed'::text])))
);

CREATE TABLE public.project_mark (
    person_id text NOT NULL,
    project_id uuid NOT NULL,
    pinned boolean DEFAULT false NOT NULL,
    opened_at timestamp with time zone
);

CREATE TABLE public.reshape_draft (
    project_id uuid NOT NULL,
    person_id text NOT NULL,
    body jsonb NOT NULL,
    at timestamp with time zone DEFAULT clock_timestamp() NOT NULL
);

CREATE TABLE public.session (
    id text NOT NULL,
    token text NOT NULL,
    person_id text NOT NULL,
    expires_at timestamp with time zone NOT NULL,
    ip_address text,
    user_agent text,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    updated_at timestamp with time zone DEFAULT now() NOT NULL
);

CREATE TABLE public.sign_in_attempt (
    key text NOT NULL,
    since timestamp with time zone DEFAULT clock_timestamp() NOT NULL,
    count integer DEFAULT 1 NOT NULL
);

CREATE TABLE public.starter_file (
    template_id text NOT NULL,
    edition integer NOT NULL,
    path text NOT NULL,
    bytes bytea NOT NULL
);

CREATE TABLE public.template (
    id text NOT NULL,
    name text NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    archived boolean DEFAULT false NOT NULL,
    CONSTRAINT template_name_check CHECK ((name <> ''::text))
);

CREATE TABLE public.template_convention (
    template_id text NOT NULL,
    local_id text NOT NULL,
    convention_id text NOT NULL
);

CREATE TABLE public.template_draft (
    template_id text NOT NULL,
    body jsonb NOT NULL,
    version integer DEFAULT 1 NOT NULL,
    person_id text,
    changed_at timestamp with time zone DEFAULT clock_timestamp() NOT NULL
);

CREATE TABLE public.template_edition (
    template_id text NOT NULL,
    edition integer NOT NULL,
    body jsonb NOT NULL,
    in_force_at timestamp with time zone DEFAULT now() NOT NULL,
    said text DEFAULT ''::text NOT NULL,
    put_by text,
    CONSTRAINT template_edition_edition_check CHECK ((edition > 0))
);

CREATE TABLE public.verification (
    id text NOT NULL,
    identifier text NOT NULL,
    value text NOT NULL,
    expires_at timestamp with time zone NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    updated_at timestamp with time zone DEFAULT now() NOT NULL
);

CREATE TABLE public.volume_prefix (
    volume text NOT NULL,
    system text NOT NULL,
    prefix text NOT NULL,
    CONSTRAINT volume_prefix_prefix_check CHECK ((prefix <> ''::text)),
    CONSTRAINT volume_prefix_system_check CHECK ((system = ANY (ARRAY['windows'::text, 'macos'::text, 'linux'::text])))
);

ALTER TABLE ONLY public.migration ALTER COLUMN id SET DEFAULT nextval('public.migration_id_seq'::regclass);

INSERT INTO public.activity OVERRIDING SYSTEM VALUE VALUES (1, '2026-11-26 21:02:41.503763+00', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', 'template-drafted', NULL, '{"template": "paper-lanterns"}', NULL, '', DEFAULT);
INSERT INTO public.activity OVERRIDING SYSTEM VALUE VALUES (2, '2026-11-26 21:02:41.682521+00', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', 'template-in-force', NULL, '{"said": "First.", "edition": 1, "template": "paper-lanterns"}', NULL, '', DEFAULT);
INSERT INTO public.activity OVERRIDING SYSTEM VALUE VALUES (3, '2026-11-26 21:02:41.725286+00', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', 'project-started', '0a27d31a-8062-49be-bab4-554ab13674d1', '{"files": 0, "folder": "26040_harvest-walk", "volume": "studio", "folders": 9}', 'project:0a27d31a-8062-49be-bab4-554ab13674d1', '', DEFAULT);
INSERT INTO public.activity OVERRIDING SYSTEM VALUE VALUES (4, '2026-11-26 21:02:41.82625+00', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', 'project-changed', '0a27d31a-8062-49be-bab4-554ab13674d1', '{"notes": "written"}', 'project:0a27d31a-8062-49be-bab4-554ab13674d1', '', DEFAULT);
INSERT INTO public.activity OVERRIDING SYSTEM VALUE VALUES (5, '2026-11-26 21:02:41.845635+00', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', 'project-changed', '0a27d31a-8062-49be-bab4-554ab13674d1', '{"picture": "given"}', 'project:0a27d31a-8062-49be-bab4-554ab13674d1', '', DEFAULT);
INSERT INTO public.activity OVERRIDING SYSTEM VALUE VALUES (6, '2026-11-26 21:02:41.986043+00', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', 'project-reshaped', '0a27d31a-8062-49be-bab4-554ab13674d1', '{"what": "grow", "batch": "4a516c2f-ca92-4e2c-a3de-fbb1a4ae2877", "changes": 1}', 'project:0a27d31a-8062-49be-bab4-554ab13674d1', '', DEFAULT);

INSERT INTO public.batch VALUES ('4a516c2f-ca92-4e2c-a3de-fbb1a4ae2877', '0a27d31a-8062-49be-bab4-554ab13674d1', 'grow', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.969904+00', '2026-11-26 21:02:41.985531+00', 'done', '', 1, NULL, '{"folder": "26040_harvest-walk", "values": {"title": "Harvest walk", "number": "26040", "shapes": ["moon", "heron"]}, "edition": 1, "adjusted": {}, "template": "paper-lanterns", "conventions": {"cut": {"id": "cut", "edition": 1}}}', '{"folder": "26040_harvest-walk", "values": {"title": "Harvest walk", "number": "26040", "shapes": ["moon", "heron", "hare"]}, "edition": 1, "adjusted": {}, "template": "paper-lanterns", "conventions": {"cut": {"id": "cut", "edition": 1}}}');

INSERT INTO public.check_run VALUES ('69fea889-5815-4327-bd2f-88c70a9d44e5', '0a27d31a-8062-49be-bab4-554ab13674d1', 'done', 1, 8, 42, 0, 0, 0, '{}', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.727087+00', '2026-11-26 21:02:41.998895+00', 'whole', 'walking', '2026-11-26 21:02:41.780299+00', '071176cc-b2f4-4833-a1ea-a85ecdf52a23', false, 0, 0, '{"": {}, "40-store": {}, "90-paper": {}, "20-cutting": {"vector": 42}, "10-sketches": {}}', 0);

INSERT INTO public.convention VALUES ('cut', 'Cut', '2026-11-26 21:02:41.675387+00');

INSERT INTO public.convention_edition VALUES ('cut', 1, '{"id": "cut", "good": ["harvest-walk_moon_cut_v001.svg"], "name": "Cut", "pattern": "{title:kebab}_{shape}_cut_v{version:000}.{ext}", "families": ["vector"]}', '2026-11-26 21:02:41.675387+00', NULL);

INSERT INTO public.credential VALUES ('de5db8c3-29a6-45e8-94d8-8e0f6b0f46b1', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', 'credential', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '$argon2id$v=19$m=65536,t=3,p=1$KOtNkeOcYpiNzr8H0FCxqw$wQakFOG4Uau3bPu5ksCl8b7QnheoLCD9j8PRLbG9GT8', NULL, NULL, NULL, NULL, NULL, NULL, '2026-11-26 21:02:41.254581+00', '2026-11-26 21:02:41.254581+00');
INSERT INTO public.credential VALUES ('3357e114-f475-4bf0-8c45-8f63aa64a165', '8aceb467-cc1b-4798-a54d-678ff55218fe', 'credential', '8aceb467-cc1b-4798-a54d-678ff55218fe', '$argon2id$v=19$m=65536,t=3,p=1$KOtNkeOcYpiNzr8H0FCxqw$wQakFOG4Uau3bPu5ksCl8b7QnheoLCD9j8PRLbG9GT8', NULL, NULL, NULL, NULL, NULL, NULL, '2026-11-26 21:02:41.25638+00', '2026-11-26 21:02:41.25638+00');
INSERT INTO public.credential VALUES ('34d8d227-d0a4-4c1c-9dc0-8b383e6778a5', '19de338d-cc20-4b0a-ac1e-fc4b24911c35', 'credential', '19de338d-cc20-4b0a-ac1e-fc4b24911c35', '$argon2id$v=19$m=65536,t=3,p=1$KOtNkeOcYpiNzr8H0FCxqw$wQakFOG4Uau3bPu5ksCl8b7QnheoLCD9j8PRLbG9GT8', NULL, NULL, NULL, NULL, NULL, NULL, '2026-11-26 21:02:41.257502+00', '2026-11-26 21:02:41.257502+00');

INSERT INTO public.folder_count VALUES ('0a27d31a-8062-49be-bab4-554ab13674d1', '', 0, 0, 'planned', '{}');
INSERT INTO public.folder_count VALUES ('0a27d31a-8062-49be-bab4-554ab13674d1', '10-sketches', 0, 0, 'planned', '{}');
INSERT INTO public.folder_count VALUES ('0a27d31a-8062-49be-bab4-554ab13674d1', '20-cutting', 0, 0, 'planned', '{}');
INSERT INTO public.folder_count VALUES ('0a27d31a-8062-49be-bab4-554ab13674d1', '20-cutting/heron', 0, 0, 'planned', '{}');
INSERT INTO public.folder_count VALUES ('0a27d31a-8062-49be-bab4-554ab13674d1', '20-cutting/moon', 1, 42, 'planned', '{"vector": 42}');
INSERT INTO public.folder_count VALUES ('0a27d31a-8062-49be-bab4-554ab13674d1', '40-store', 0, 0, 'planned', '{}');
INSERT INTO public.folder_count VALUES ('0a27d31a-8062-49be-bab4-554ab13674d1', '90-paper', 0, 0, 'planned', '{}');
INSERT INTO public.folder_count VALUES ('0a27d31a-8062-49be-bab4-554ab13674d1', '90-paper/letters', 0, 0, 'planned', '{}');
INSERT INTO public.folder_count VALUES ('0a27d31a-8062-49be-bab4-554ab13674d1', '90-paper/quotes', 0, 0, 'planned', '{}');

INSERT INTO public.migration VALUES (1, '0001_people', '2026-11-26 21:02:40.806415');
INSERT INTO public.migration VALUES (2, '0002_rules', '2026-11-26 21:02:40.820532');
INSERT INTO public.migration VALUES (3, '0003_projects', '2026-11-26 21:02:40.834855');
INSERT INTO public.migration VALUES (4, '0004_conventions', '2026-11-26 21:02:40.855684');
INSERT INTO public.migration VALUES (5, '0005_template_drafts', '2026-11-26 21:02:40.874605');
INSERT INTO public.migration VALUES (6, '0006_blocks', '2026-11-26 21:02:40.881308');
INSERT INTO public.migration VALUES (7, '0007_house', '2026-11-26 21:02:40.891069');
INSERT INTO public.migration VALUES (8, '0008_projects', '2026-11-26 21:02:40.922759');
INSERT INTO public.migration VALUES (9, '0009_batches', '2026-11-26 21:02:40.93758');
INSERT INTO public.migration VALUES (10, '0010_checks', '2026-11-26 21:02:40.946822');

INSERT INTO public.number_counter VALUES ('26', 40);

INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (1, '26001', '26', 1, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.711823+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (2, '26002', '26', 2, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712234+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (3, '26003', '26', 3, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712248+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (4, '26004', '26', 4, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712256+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (5, '26005', '26', 5, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712263+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (6, '26006', '26', 6, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712273+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (7, '26007', '26', 7, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.71228+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (8, '26008', '26', 8, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712287+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (9, '26009', '26', 9, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712294+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (10, '26010', '26', 10, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712301+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (11, '26011', '26', 11, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712308+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (12, '26012', '26', 12, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712315+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (13, '26013', '26', 13, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712322+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (14, '26014', '26', 14, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.71233+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (15, '26015', '26', 15, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712337+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (16, '26016', '26', 16, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712344+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (17, '26017', '26', 17, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712354+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (18, '26018', '26', 18, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712361+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (19, '26019', '26', 19, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712369+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (20, '26020', '26', 20, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712376+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (21, '26021', '26', 21, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712383+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (22, '26022', '26', 22, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712391+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (23, '26023', '26', 23, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712398+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (24, '26024', '26', 24, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712406+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (25, '26025', '26', 25, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712413+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (26, '26026', '26', 26, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.71242+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (27, '26027', '26', 27, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712428+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (28, '26028', '26', 28, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712435+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (29, '26029', '26', 29, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712445+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (30, '26030', '26', 30, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712452+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (31, '26031', '26', 31, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.71246+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (32, '26032', '26', 32, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712467+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (33, '26033', '26', 33, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712475+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (34, '26034', '26', 34, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712483+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (35, '26035', '26', 35, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712491+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (36, '26036', '26', 36, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712498+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (37, '26037', '26', 37, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712506+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (38, '26038', '26', 38, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712514+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (39, '26039', '26', 39, 'passed-over', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712521+00', '26040');
INSERT INTO public.number_event OVERRIDING SYSTEM VALUE VALUES (40, '26040', '26', 40, 'used', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.712531+00', '26040_harvest-walk');

INSERT INTO public.number_series VALUES ('project', '{yy}{n:000}', 'yearly', 1, '{}', 1);

INSERT INTO public.person VALUES ('6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', 'The coordinator', 'coordinator@tallow-street.example', true, NULL, 'CO', 'coordinator', '', false, '2026-11-26 21:02:41.253521+00', '2026-11-26 21:02:41.253521+00', 1, NULL);
INSERT INTO public.person VALUES ('8aceb467-cc1b-4798-a54d-678ff55218fe', 'The artist', 'artist@tallow-street.example', true, NULL, 'AR', 'artist', '', false, '2026-11-26 21:02:41.25584+00', '2026-11-26 21:02:41.25584+00', 1, NULL);
INSERT INTO public.person VALUES ('19de338d-cc20-4b0a-ac1e-fc4b24911c35', 'The lead', 'lead@tallow-street.example', true, NULL, 'LE', 'lead', '', false, '2026-11-26 21:02:41.257016+00', '2026-11-26 21:02:41.257016+00', 1, NULL);

INSERT INTO public.project VALUES ('0a27d31a-8062-49be-bab4-554ab13674d1', '26040', NULL, 'Harvest walk', 'paper-lanterns', 1, '{"title": "Harvest walk", "number": "26040", "shapes": ["moon", "heron", "hare"]}', 'studio', '26040_harvest-walk', 'running', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc', '2026-11-26 21:02:41.703525+00', '{"cut": {"id": "cut", "edition": 1}}', '69fea889-5815-4327-bd2f-88c70a9d44e5', 'The glue needs a night to dry.', '2026-11-26 21:02:41.714696+00', '{}', '{}', '{}', '\x89504e470d0a1a0a0000000d49484452000000010000000108060000001f15c4890000000d4944415478da6364f8cf500f00038601805a347d6b0000000049454e44ae426082', 3, NULL);

INSERT INTO public.template VALUES ('paper-lanterns', 'Paper lanterns', '2026-11-26 21:02:41.498675+00', false);

INSERT INTO public.template_convention VALUES ('paper-lanterns', 'cut', 'cut');

INSERT INTO public.template_edition VALUES ('paper-lanterns', 1, '{"id": "paper-lanterns", "name": "Paper lanterns", "root": {"id": "root", "name": "{number}_{title:kebab}", "folders": [{"id": "in", "mark": "moss", "name": "sketches", "number": 10}, {"id": "cut", "mark": "clay", "name": "cutting", "number": 20, "folders": [{"id": "shape", "name": "{shape}", "onePer": {"as": "shape", "list": "shapes"}, "accepts": ["vector"], "signpost": "cuts", "conventions": ["cut"]}]}, {"id": "store", "free": true, "mark": "teal", "name": "store", "number": 40}, {"id": "paper", "name": "paper", "block": "papers", "number": 90}], "numbering": {"digits": 2, "joiner": "-"}}, "blocks": [{"id": "papers", "name": "Papers", "folders": [{"id": "quotes", "mark": "slate", "name": "quotes"}, {"id": "letters", "name": "letters"}]}], "fields": [{"id": "title", "key": "title", "type": "text", "label": "Title"}, {"id": "number", "key": "number", "type": "text", "label": "Number"}, {"id": "shapes", "of": {"type": "text"}, "key": "shapes", "type": "list", "label": "Shapes"}], "format": "nesting/template", "edition": 1, "purpose": "Lanterns that are carried.", "registers": {"families": [{"name": "vector", "extensions": ["svg"]}]}, "conventions": [{"id": "cut", "good": ["harvest-walk_moon_cut_v001.svg"], "name": "Cut", "pattern": "{title:kebab}_{shape}_cut_v{version:000}.{ext}", "families": ["vector"]}], "formatVersion": 1}', '2026-11-26 21:02:41.675387+00', 'First.', '6be0c4b1-541b-4951-8fd1-56fedc7e7cbc');

SELECT pg_catalog.setval('public.activity_id_seq', 6, true);

SELECT pg_catalog.setval('public.mail_id_seq', 1, false);

SELECT pg_catalog.setval('public.migration_id_seq', 10, true);

SELECT pg_catalog.setval('public.number_event_id_seq', 40, true);

ALTER TABLE ONLY public.abbreviation
    ADD CONSTRAINT abbreviation_pkey PRIMARY KEY (long);

ALTER TABLE ONLY public.access_key
    ADD CONSTRAINT access_key_hash_key UNIQUE (hash);

ALTER TABLE ONLY public.access_key
    ADD CONSTRAINT access_key_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.access_link
    ADD CONSTRAINT access_link_pkey PRIMARY KEY (hash);

ALTER TABLE ONLY public.activity
    ADD CONSTRAINT activity_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.banned_word
    ADD CONSTRAINT banned_word_pkey PRIMARY KEY (word);

ALTER TABLE ONLY public.batch
    ADD CONSTRAINT batch_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.block_draft
    ADD CONSTRAINT block_draft_pkey PRIMARY KEY (block_id);

ALTER TABLE ONLY public.block_edition
    ADD CONSTRAINT block_edition_pkey PRIMARY KEY (block_id, edition);

ALTER TABLE ONLY public.block
    ADD CONSTRAINT block_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.block_starter
    ADD CONSTRAINT block_starter_pkey PRIMARY KEY (block_id, path);

ALTER TABLE ONLY public.check_gathered
    ADD CONSTRAINT check_gathered_pkey PRIMARY KEY (check_id);

ALTER TABLE ONLY public.check_memory
    ADD CONSTRAINT check_memory_pkey PRIMARY KEY (project_id);

ALTER TABLE ONLY public.check_run
    ADD CONSTRAINT check_run_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.client
    ADD CONSTRAINT client_pkey PRIMARY KEY (code);

ALTER TABLE ONLY public.convention_draft
    ADD CONSTRAINT convention_draft_pkey PRIMARY KEY (convention_id);

ALTER TABLE ONLY public.convention_edition
    ADD CONSTRAINT convention_edition_pkey PRIMARY KEY (convention_id, edition);

ALTER TABLE ONLY public.convention
    ADD CONSTRAINT convention_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.copy_left
    ADD CONSTRAINT copy_left_pkey PRIMARY KEY (project_id, volume, folder);

ALTER TABLE ONLY public.credential
    ADD CONSTRAINT credential_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.credential
    ADD CONSTRAINT credential_provider_id_account_id_key UNIQUE (provider_id, account_id);

ALTER TABLE ONLY public.draft_starter
    ADD CONSTRAINT draft_starter_pkey PRIMARY KEY (template_id, path);

ALTER TABLE ONLY public.exception
    ADD CONSTRAINT exception_pkey PRIMARY KEY (project_id, finding_id);

ALTER TABLE ONLY public.family
    ADD CONSTRAINT family_pkey PRIMARY KEY (name);

ALTER TABLE ONLY public.finding_link
    ADD CONSTRAINT finding_link_pkey PRIMARY KEY (hash);

ALTER TABLE ONLY public.finding_mark
    ADD CONSTRAINT finding_mark_pkey PRIMARY KEY (project_id, finding_id);

ALTER TABLE ONLY public.first_day
    ADD CONSTRAINT first_day_pkey PRIMARY KEY (project_id, place);

ALTER TABLE ONLY public.handed_in
    ADD CONSTRAINT handed_in_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.mail
    ADD CONSTRAINT mail_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.migration
    ADD CONSTRAINT migration_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.name_hold
    ADD CONSTRAINT name_hold_pkey PRIMARY KEY (project_id, folder, name);

ALTER TABLE ONLY public.number_counter
    ADD CONSTRAINT number_counter_pkey PRIMARY KEY (scope);

ALTER TABLE ONLY public.number_event
    ADD CONSTRAINT number_event_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.number_hold
    ADD CONSTRAINT number_hold_pkey PRIMARY KEY (number);

ALTER TABLE ONLY public.number_reserved
    ADD CONSTRAINT number_reserved_pkey PRIMARY KEY (number);

ALTER TABLE ONLY public.number_series
    ADD CONSTRAINT number_series_pkey PRIMARY KEY (name);

ALTER TABLE ONLY public.person
    ADD CONSTRAINT person_email_key UNIQUE (email);

ALTER TABLE ONLY public.person
    ADD CONSTRAINT person_initials_key UNIQUE (initials);

ALTER TABLE ONLY public.person
    ADD CONSTRAINT person_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.project_mark
    ADD CONSTRAINT project_mark_pkey PRIMARY KEY (person_id, project_id);

ALTER TABLE ONLY public.project
    ADD CONSTRAINT project_number_once UNIQUE (number);

ALTER TABLE ONLY public.project
    ADD CONSTRAINT project_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.reshape_draft
    ADD CONSTRAINT reshape_draft_pkey PRIMARY KEY (project_id, person_id);

ALTER TABLE ONLY public.session
    ADD CONSTRAINT session_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.session
    ADD CONSTRAINT session_token_key UNIQUE (token);

ALTER TABLE ONLY public.sign_in_attempt
    ADD CONSTRAINT sign_in_attempt_pkey PRIMARY KEY (key);

ALTER TABLE ONLY public.starter_file
    ADD CONSTRAINT starter_file_pkey PRIMARY KEY (template_id, edition, path);

ALTER TABLE ONLY public.template_convention
    ADD CONSTRAINT template_convention_pkey PRIMARY KEY (template_id, local_id);

ALTER TABLE ONLY public.template_draft
    ADD CONSTRAINT template_draft_pkey PRIMARY KEY (template_id);

ALTER TABLE ONLY public.template_edition
    ADD CONSTRAINT template_edition_pkey PRIMARY KEY (template_id, edition);

ALTER TABLE ONLY public.template
    ADD CONSTRAINT template_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.verification
    ADD CONSTRAINT verification_pkey PRIMARY KEY (id);

ALTER TABLE ONLY public.volume_prefix
    ADD CONSTRAINT volume_prefix_pkey PRIMARY KEY (volume, system);

CREATE UNIQUE INDEX abbreviation_long_once ON public.abbreviation USING btree (lower(long));

CREATE UNIQUE INDEX abbreviation_short_once ON public.abbreviation USING btree (lower(short));

CREATE INDEX access_key_person ON public.access_key USING btree (person_id);

CREATE INDEX access_link_person ON public.access_link USING btree (person_id);

CREATE INDEX activity_at ON public.activity USING btree (at);

CREATE INDEX activity_person ON public.activity USING btree (person_id, id DESC);

CREATE INDEX activity_subject ON public.activity USING btree (subject, id DESC);

CREATE INDEX activity_what ON public.activity USING btree (what, id DESC);

CREATE INDEX activity_words ON public.activity USING gin (words);

CREATE UNIQUE INDEX banned_word_once ON public.banned_word USING btree (lower(word));

CREATE INDEX batch_of_project ON public.batch USING btree (project_id, at DESC);

CREATE UNIQUE INDEX batch_open_once ON public.batch USING btree (project_id) WHERE (state = ANY (ARRAY['running'::text, 'paused'::text]));

CREATE INDEX check_run_of_project ON public.check_run USING btree (project_id, started_at DESC);

CREATE UNIQUE INDEX check_run_open ON public.check_run USING btree (project_id) WHERE (state = ANY (ARRAY['queued'::text, 'running'::text]));

CREATE INDEX check_run_silent ON public.check_run USING btree (seen_at) WHERE (state = ANY (ARRAY['queued'::text, 'running'::text]));

CREATE UNIQUE INDEX client_code_once ON public.client USING btree (lower(code));

CREATE INDEX credential_person ON public.credential USING btree (person_id);

CREATE INDEX exception_until ON public.exception USING btree (until) WHERE (until IS NOT NULL);

CREATE UNIQUE INDEX family_name_once ON public.family USING btree (lower(name));

CREATE INDEX finding_in_order ON public.finding USING btree (project_id, path, rule, id) WHERE (until_at IS NULL);

CREATE INDEX finding_mark_person ON public.finding_mark USING btree (person_id) WHERE (person_id IS NOT NULL);

CREATE UNIQUE INDEX finding_open ON public.finding USING btree (project_id, id) WHERE (until_at IS NULL);

CREATE INDEX finding_solved ON public.finding USING btree (project_id, until_at) WHERE (until_at IS NOT NULL);

CREATE INDEX folder_count_of ON public.folder_count USING btree (project_id, path);

CREATE INDEX handed_in_of ON public.handed_in USING btree (project_id, at DESC);

CREATE INDEX mail_waiting ON public.mail USING btree (id) WHERE (state = 'waiting'::text);

CREATE UNIQUE INDEX name_hold_once ON public.name_hold USING btree (project_id, lower(folder), lower(name));

CREATE INDEX number_event_number ON public.number_event USING btree (number, id DESC);

CREATE INDEX number_event_of ON public.number_event USING btree (scope, n, id DESC);

CREATE INDEX project_client ON public.project USING btree (client_code);

CREATE UNIQUE INDEX project_folder_once ON public.project USING btree (volume, lower(folder));

CREATE INDEX project_number ON public.project USING btree (number DESC);

CREATE INDEX project_person ON public.project USING btree (started_by);

CREATE INDEX session_person ON public.session USING btree (person_id);

CREATE INDEX template_convention_of ON public.template_convention USING btree (convention_id);

CREATE INDEX verification_identifier ON public.verification USING btree (identifier);

ALTER TABLE ONLY public.access_key
    ADD CONSTRAINT access_key_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.access_link
    ADD CONSTRAINT access_link_made_by_fkey FOREIGN KEY (made_by) REFERENCES public.person(id);

ALTER TABLE ONLY public.access_link
    ADD CONSTRAINT access_link_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.activity
    ADD CONSTRAINT activity_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id);

ALTER TABLE ONLY public.batch
    ADD CONSTRAINT batch_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id);

ALTER TABLE ONLY public.batch
    ADD CONSTRAINT batch_project_id_fkey FOREIGN KEY (project_id) REFERENCES public.project(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.batch
    ADD CONSTRAINT batch_undoes_fkey FOREIGN KEY (undoes) REFERENCES public.batch(id);

ALTER TABLE ONLY public.block_draft
    ADD CONSTRAINT block_draft_block_id_fkey FOREIGN KEY (block_id) REFERENCES public.block(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.block_draft
    ADD CONSTRAINT block_draft_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id);

ALTER TABLE ONLY public.block_edition
    ADD CONSTRAINT block_edition_block_id_fkey FOREIGN KEY (block_id) REFERENCES public.block(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.block_edition
    ADD CONSTRAINT block_edition_put_by_fkey FOREIGN KEY (put_by) REFERENCES public.person(id);

ALTER TABLE ONLY public.block_starter
    ADD CONSTRAINT block_starter_block_id_fkey FOREIGN KEY (block_id) REFERENCES public.block(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.check_gathered
    ADD CONSTRAINT check_gathered_check_id_fkey FOREIGN KEY (check_id) REFERENCES public.check_run(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.check_memory
    ADD CONSTRAINT check_memory_project_id_fkey FOREIGN KEY (project_id) REFERENCES public.project(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.check_run
    ADD CONSTRAINT check_run_asked_by_fkey FOREIGN KEY (asked_by) REFERENCES public.person(id);

ALTER TABLE ONLY public.check_run
    ADD CONSTRAINT check_run_project_id_fkey FOREIGN KEY (project_id) REFERENCES public.project(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.client
    ADD CONSTRAINT client_merged_into_fkey FOREIGN KEY (merged_into) REFERENCES public.client(code);

ALTER TABLE ONLY public.convention_draft
    ADD CONSTRAINT convention_draft_convention_id_fkey FOREIGN KEY (convention_id) REFERENCES public.convention(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.convention_draft
    ADD CONSTRAINT convention_draft_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id);

ALTER TABLE ONLY public.convention_edition
    ADD CONSTRAINT convention_edition_convention_id_fkey FOREIGN KEY (convention_id) REFERENCES public.convention(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.convention_edition
    ADD CONSTRAINT convention_edition_put_by_fkey FOREIGN KEY (put_by) REFERENCES public.person(id);

ALTER TABLE ONLY public.copy_left
    ADD CONSTRAINT copy_left_project_id_fkey FOREIGN KEY (project_id) REFERENCES public.project(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.credential
    ADD CONSTRAINT credential_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.draft_starter
    ADD CONSTRAINT draft_starter_template_id_fkey FOREIGN KEY (template_id) REFERENCES public.template(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.exception
    ADD CONSTRAINT exception_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id);

ALTER TABLE ONLY public.exception
    ADD CONSTRAINT exception_project_id_fkey FOREIGN KEY (project_id) REFERENCES public.project(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.finding_link
    ADD CONSTRAINT finding_link_made_by_fkey FOREIGN KEY (made_by) REFERENCES public.person(id) ON DELETE SET NULL;

ALTER TABLE ONLY public.finding_link
    ADD CONSTRAINT finding_link_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.finding_mark
    ADD CONSTRAINT finding_mark_by_fkey FOREIGN KEY (by) REFERENCES public.person(id) ON DELETE SET NULL;

ALTER TABLE ONLY public.finding_mark
    ADD CONSTRAINT finding_mark_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE SET NULL;

ALTER TABLE ONLY public.finding_mark
    ADD CONSTRAINT finding_mark_project_id_fkey FOREIGN KEY (project_id) REFERENCES public.project(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.finding
    ADD CONSTRAINT finding_project_id_fkey FOREIGN KEY (project_id) REFERENCES public.project(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.first_day
    ADD CONSTRAINT first_day_done_by_fkey FOREIGN KEY (done_by) REFERENCES public.person(id);

ALTER TABLE ONLY public.first_day
    ADD CONSTRAINT first_day_project_id_fkey FOREIGN KEY (project_id) REFERENCES public.project(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.folder_count
    ADD CONSTRAINT folder_count_project_id_fkey FOREIGN KEY (project_id) REFERENCES public.project(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.handed_in
    ADD CONSTRAINT handed_in_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE SET NULL;

ALTER TABLE ONLY public.handed_in
    ADD CONSTRAINT handed_in_project_id_fkey FOREIGN KEY (project_id) REFERENCES public.project(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.name_hold
    ADD CONSTRAINT name_hold_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.name_hold
    ADD CONSTRAINT name_hold_project_id_fkey FOREIGN KEY (project_id) REFERENCES public.project(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.number_event
    ADD CONSTRAINT number_event_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id);

ALTER TABLE ONLY public.number_hold
    ADD CONSTRAINT number_hold_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.number_reserved
    ADD CONSTRAINT number_reserved_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id);

ALTER TABLE ONLY public.project
    ADD CONSTRAINT project_client_code_fkey FOREIGN KEY (client_code) REFERENCES public.client(code);

ALTER TABLE ONLY public.project
    ADD CONSTRAINT project_last_check_fkey FOREIGN KEY (last_check) REFERENCES public.check_run(id) ON DELETE SET NULL;

ALTER TABLE ONLY public.project_mark
    ADD CONSTRAINT project_mark_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.project_mark
    ADD CONSTRAINT project_mark_project_id_fkey FOREIGN KEY (project_id) REFERENCES public.project(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.project
    ADD CONSTRAINT project_started_by_fkey FOREIGN KEY (started_by) REFERENCES public.person(id);

ALTER TABLE ONLY public.project
    ADD CONSTRAINT project_template_id_edition_fkey FOREIGN KEY (template_id, edition) REFERENCES public.template_edition(template_id, edition);

ALTER TABLE ONLY public.reshape_draft
    ADD CONSTRAINT reshape_draft_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.reshape_draft
    ADD CONSTRAINT reshape_draft_project_id_fkey FOREIGN KEY (project_id) REFERENCES public.project(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.session
    ADD CONSTRAINT session_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.starter_file
    ADD CONSTRAINT starter_file_template_id_edition_fkey FOREIGN KEY (template_id, edition) REFERENCES public.template_edition(template_id, edition);

ALTER TABLE ONLY public.template_convention
    ADD CONSTRAINT template_convention_convention_id_fkey FOREIGN KEY (convention_id) REFERENCES public.convention(id);

ALTER TABLE ONLY public.template_convention
    ADD CONSTRAINT template_convention_template_id_fkey FOREIGN KEY (template_id) REFERENCES public.template(id);

ALTER TABLE ONLY public.template_draft
    ADD CONSTRAINT template_draft_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id);

ALTER TABLE ONLY public.template_draft
    ADD CONSTRAINT template_draft_template_id_fkey FOREIGN KEY (template_id) REFERENCES public.template(id) ON DELETE CASCADE;

ALTER TABLE ONLY public.template_edition
    ADD CONSTRAINT template_edition_put_by_fkey FOREIGN KEY (put_by) REFERENCES public.person(id);

ALTER TABLE ONLY public.template_edition
    ADD CONSTRAINT template_edition_template_id_fkey FOREIGN KEY (template_id) REFERENCES public.template(id);

