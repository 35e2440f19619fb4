SELECT pg_catalog.set_config('search_path', '', false);
CREATE FUNCTION public.write_cell(house uuid, register uuid, entry uuid, known_version integer, known_build bigint, new_cells jsonb, deltas jsonb, person uuid, field text, old_value text, new_value text, change jsonb, channel text) RETURNS boolean
    LANGUAGE plpgsql
    AS $$
declare number bigint;
begin
  -- The build stays as it is until the commit; what was judged against an older one is judged anew by the caller.
  perform pg_advisory_xact_lock_shared(hashtextextended(house::text, 0));
  perform 1 from houses where id = house and build = known_build;
  if not found then return false; end if;
  update entries set cells = new_cells, version = version + 1
    where house_id = house and register_id = register and id = entry and version = known_version;
  if not found then return false; end if;
  insert into value_deltas (house_id, field_id, value, entries)
    select house, delta."fieldId", delta.value, delta.entries
    from jsonb_to_recordset(deltas) as delta("fieldId" uuid, value text, entries bigint);
  insert into ledger (house_id, person_id, act, register_id, entry_id, field_key, entry_version, from_value, to_value)
    values (house, person, 'cell.written', register, entry, field, known_version + 1, old_value, new_value);
  update house_counters set seq = seq + 1 where house_id = house returning seq into number;
  insert into changes (house_id, seq, audience, body) values (house, number, 'everyone', change);
  perform pg_notify(channel, house || ':' || number);
  return true;
end $$;
CREATE TABLE public.acts (
    house_id uuid NOT NULL,
    id bigint NOT NULL,
    person_id uuid,
    at timestamp with time zone DEFAULT now() NOT NULL,
    registers jsonb NOT NULL,
    proposal jsonb NOT NULL,
    back jsonb NOT NULL,
    state text DEFAULT 'done'::text NOT NULL
);
ALTER TABLE public.acts ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.acts_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.carries (
    house_id uuid NOT NULL,
    id uuid NOT NULL,
    field_id uuid NOT NULL,
    from_value text NOT NULL,
    to_value text NOT NULL,
    reached uuid,
    done bigint NOT NULL,
    total bigint NOT NULL,
    finished_at timestamp with time zone
);
CREATE TABLE public.catalog_changes (
    house_id uuid NOT NULL,
    id bigint NOT NULL,
    catalog_id uuid NOT NULL,
    at timestamp with time zone DEFAULT now() NOT NULL,
    person_id uuid,
    act_id bigint,
    version bigint NOT NULL,
    items jsonb NOT NULL,
    order_before jsonb,
    definition_before jsonb
);
ALTER TABLE public.catalog_changes ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.catalog_changes_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.catalogs (
    house_id uuid NOT NULL,
    id uuid NOT NULL,
    key text NOT NULL,
    title text NOT NULL,
    note text NOT NULL,
    version bigint DEFAULT 1 NOT NULL,
    definition jsonb NOT NULL
);
CREATE TABLE public.changes (
    house_id uuid NOT NULL,
    seq bigint NOT NULL,
    audience text NOT NULL,
    body jsonb NOT NULL,
    at timestamp with time zone DEFAULT now() NOT NULL
);
CREATE TABLE public.chunks (
    house_id uuid NOT NULL,
    register_id uuid NOT NULL,
    from_pos bigint NOT NULL,
    entries integer NOT NULL
);
CREATE TABLE public.entries (
    house_id uuid NOT NULL,
    register_id uuid NOT NULL,
    id uuid NOT NULL,
    pos bigint NOT NULL,
    version integer DEFAULT 1 NOT NULL,
    cells jsonb NOT NULL
)
WITH (fillfactor='85');
CREATE TABLE public.fields (
    house_id uuid NOT NULL,
    id uuid NOT NULL,
    register_id uuid NOT NULL,
    key text NOT NULL,
    heading text NOT NULL,
    kind text NOT NULL,
    width integer NOT NULL,
    ord integer NOT NULL,
    rule jsonb,
    catalog_id uuid
);
CREATE TABLE public.house_counters (
    house_id uuid NOT NULL,
    seq bigint NOT NULL
)
WITH (fillfactor='50');
CREATE TABLE public.houses (
    id uuid NOT NULL,
    key text NOT NULL,
    name text NOT NULL,
    locale jsonb NOT NULL,
    demo boolean DEFAULT false NOT NULL,
    build bigint DEFAULT 1 NOT NULL
);
CREATE TABLE public.instance (
    id text NOT NULL
);
CREATE TABLE public.kept_items (
    house_id uuid NOT NULL,
    catalog_id uuid NOT NULL,
    value text NOT NULL,
    key text NOT NULL,
    path jsonb DEFAULT '[]'::jsonb NOT NULL,
    retired boolean NOT NULL,
    label text,
    note text,
    colour text,
    valid_from text,
    valid_until text
);
CREATE TABLE public.kysely_migration (
    name character varying(255) NOT NULL,
    "timestamp" character varying(255) NOT NULL
);
CREATE TABLE public.kysely_migration_lock (
    id character varying(255) NOT NULL,
    is_locked integer DEFAULT 0 NOT NULL
);
CREATE TABLE public.ledger (
    house_id uuid NOT NULL,
    id bigint NOT NULL,
    at timestamp with time zone DEFAULT now() NOT NULL,
    person_id uuid,
    act text NOT NULL,
    register_id uuid,
    entry_id uuid,
    field_key text,
    entry_version integer,
    from_value text,
    to_value text,
    detail jsonb
);
ALTER TABLE public.ledger ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.ledger_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.linked_sources (
    house_id uuid NOT NULL,
    id uuid NOT NULL,
    name text NOT NULL,
    name_key text NOT NULL,
    settings jsonb NOT NULL,
    every integer NOT NULL,
    rows jsonb DEFAULT '[]'::jsonb NOT NULL,
    mark text,
    last_good_at timestamp with time zone,
    last_tried_at timestamp with time zone,
    failure text
);
CREATE TABLE public.other_names (
    house_id uuid NOT NULL,
    catalog_id uuid NOT NULL,
    name text NOT NULL,
    value text NOT NULL
);
CREATE TABLE public.people (
    house_id uuid NOT NULL,
    id uuid NOT NULL,
    name text NOT NULL,
    sign_in text NOT NULL,
    sign_in_key text NOT NULL,
    role text NOT NULL,
    password_hash text NOT NULL
);
CREATE TABLE public.range_stretches (
    house_id uuid NOT NULL,
    range_id uuid NOT NULL,
    ord integer NOT NULL,
    register_id uuid NOT NULL,
    fields jsonb NOT NULL,
    range_start jsonb NOT NULL,
    range_end jsonb NOT NULL
);
CREATE TABLE public.ranges (
    house_id uuid NOT NULL,
    id uuid NOT NULL,
    name text NOT NULL,
    name_key text NOT NULL,
    shape text DEFAULT 'list'::text NOT NULL,
    inherits boolean DEFAULT false NOT NULL
);
CREATE TABLE public.registers (
    house_id uuid NOT NULL,
    id uuid NOT NULL,
    sheet_id uuid NOT NULL,
    title text NOT NULL,
    ord integer NOT NULL
);
CREATE TABLE public.sessions (
    house_id uuid NOT NULL,
    token_hash bytea NOT NULL,
    person_id uuid NOT NULL,
    last_seen_at timestamp with time zone DEFAULT now() NOT NULL,
    expires_at timestamp with time zone NOT NULL
);
CREATE TABLE public.sheets (
    house_id uuid NOT NULL,
    id uuid NOT NULL,
    kind text NOT NULL,
    title text NOT NULL,
    note text NOT NULL,
    ord integer NOT NULL,
    shown boolean DEFAULT false NOT NULL
);
CREATE TABLE public.sign_in_tries (
    house_id uuid NOT NULL,
    id bigint NOT NULL,
    sign_in_key text NOT NULL,
    address text NOT NULL,
    at timestamp with time zone DEFAULT now() NOT NULL
);
ALTER TABLE public.sign_in_tries ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.sign_in_tries_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.slips (
    house_id uuid NOT NULL,
    id uuid NOT NULL,
    person_id uuid NOT NULL,
    proposal jsonb NOT NULL,
    questions jsonb NOT NULL,
    inside integer NOT NULL,
    entries jsonb NOT NULL,
    at timestamp with time zone DEFAULT now() NOT NULL
);
CREATE TABLE public.value_counts (
    house_id uuid NOT NULL,
    field_id uuid NOT NULL,
    value text NOT NULL,
    entries bigint NOT NULL
);
CREATE TABLE public.value_deltas (
    house_id uuid NOT NULL,
    id bigint NOT NULL,
    field_id uuid NOT NULL,
    value text NOT NULL,
    entries bigint NOT NULL
);
ALTER TABLE public.value_deltas ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.value_deltas_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
INSERT INTO public.catalogs VALUES
	('b3f56e81-09c3-441c-879f-e66add2cd522', 'e531a3d5-35ae-481e-8ba7-6da437615468', 'pilots', 'Pilots', '', 1, '{"order": {"by": "kept"}, "parts": [{"join": "or", "kind": "range", "label": null, "rangeId": "93d44079-aba9-49af-b822-e9777fbf55d7", "companions": []}], "filter": null, "distinct": "value"}');
INSERT INTO public.changes VALUES
	('b3f56e81-09c3-441c-879f-e66add2cd522', 1, 'administrators', '{"kind": "people"}', '2026-11-29 14:20:51.13882+00'),
	('b3f56e81-09c3-441c-879f-e66add2cd522', 2, 'everyone', '{"by": "946e317a-2e92-4ae8-93e5-151c2817344c", "kind": "cells", "cells": {"pilot": "Rook Tansy"}, "entryId": "b98a9eee-d54b-45ec-b527-7c2166ecd39c", "version": 2, "registerId": "e652ab69-634e-4e78-bad1-3743b6cbd064"}', '2026-11-29 14:20:51.220149+00'),
	('b3f56e81-09c3-441c-879f-e66add2cd522', 3, 'everyone', '{"kind": "register", "registerId": "e652ab69-634e-4e78-bad1-3743b6cbd064"}', '2026-11-29 14:20:51.24263+00');
INSERT INTO public.chunks VALUES
	('b3f56e81-09c3-441c-879f-e66add2cd522', 'd4bb6520-9394-4c05-83eb-f7851ebbd6a5', -4611686018427387904, 3),
	('b3f56e81-09c3-441c-879f-e66add2cd522', '295349ba-b331-4d5a-a840-e77dfc8955e5', -4611686018427387904, 2),
	('b3f56e81-09c3-441c-879f-e66add2cd522', 'e652ab69-634e-4e78-bad1-3743b6cbd064', -4611686018427387904, 2);
INSERT INTO public.entries VALUES
	('b3f56e81-09c3-441c-879f-e66add2cd522', 'd4bb6520-9394-4c05-83eb-f7851ebbd6a5', '054df5ba-22f8-436d-9865-b8b00abf8c2a', 4294967296, 1, '{"value": "Tam Ossel"}'),
	('b3f56e81-09c3-441c-879f-e66add2cd522', 'd4bb6520-9394-4c05-83eb-f7851ebbd6a5', '2e1462ef-cb6d-4088-b05d-1c13f89817c3', 8589934592, 1, '{"value": "Bryn Calloway"}'),
	('b3f56e81-09c3-441c-879f-e66add2cd522', 'd4bb6520-9394-4c05-83eb-f7851ebbd6a5', '88bde824-2e88-43dd-8a07-c08c5ebdc22f', 12884901888, 1, '{"value": "Rook Tansy"}'),
	('b3f56e81-09c3-441c-879f-e66add2cd522', '295349ba-b331-4d5a-a840-e77dfc8955e5', '42f39f66-6230-48dd-a13c-107ade7f7602', 4294967296, 1, '{"value": "North"}'),
	('b3f56e81-09c3-441c-879f-e66add2cd522', '295349ba-b331-4d5a-a840-e77dfc8955e5', 'ce5db78b-8c55-46c9-a20a-8cec0b8465ec', 8589934592, 1, '{"value": "South"}'),
	('b3f56e81-09c3-441c-879f-e66add2cd522', 'e652ab69-634e-4e78-bad1-3743b6cbd064', 'a085e935-65d9-4246-b9ca-0fc2e804f792', 8589934592, 1, '{"pilot": "Tam", "visit": "V2"}'),
	('b3f56e81-09c3-441c-879f-e66add2cd522', 'e652ab69-634e-4e78-bad1-3743b6cbd064', 'b98a9eee-d54b-45ec-b527-7c2166ecd39c', 4294967296, 2, '{"pilot": "Rook Tansy", "visit": "V1", "arrival": "2026-11-24"}');
INSERT INTO public.fields VALUES
	('b3f56e81-09c3-441c-879f-e66add2cd522', '06029a27-1c64-4a15-9e34-3b689fd83635', 'd4bb6520-9394-4c05-83eb-f7851ebbd6a5', 'value', 'Pilots', 'text', 160, 3, NULL, NULL),
	('b3f56e81-09c3-441c-879f-e66add2cd522', 'ec78f06d-0288-4926-9f93-42b7e573f292', '295349ba-b331-4d5a-a840-e77dfc8955e5', 'value', 'Quays', 'text', 160, 5, NULL, NULL),
	('b3f56e81-09c3-441c-879f-e66add2cd522', '4718d56c-960d-494e-8d5b-28021fa2b841', 'e652ab69-634e-4e78-bad1-3743b6cbd064', 'visit', 'Visit', 'text', 90, 8, NULL, NULL),
	('b3f56e81-09c3-441c-879f-e66add2cd522', '9789e357-4e4f-4324-b6ff-752236a891d7', 'e652ab69-634e-4e78-bad1-3743b6cbd064', 'arrival', 'Arrival', 'date', 100, 10, NULL, NULL),
	('b3f56e81-09c3-441c-879f-e66add2cd522', 'e90a816e-5a43-4644-b6d7-e0789fb2bee2', 'e652ab69-634e-4e78-bad1-3743b6cbd064', 'pilot', 'Pilot', 'text', 120, 9, '{"hint": "Who?", "kind": "catalog", "others": "refuse", "catalogId": "e531a3d5-35ae-481e-8ba7-6da437615468", "mayBeBlank": true, "refusalText": ""}', 'e531a3d5-35ae-481e-8ba7-6da437615468');
INSERT INTO public.house_counters VALUES
	('b3f56e81-09c3-441c-879f-e66add2cd522', 3);
INSERT INTO public.houses VALUES
	('b3f56e81-09c3-441c-879f-e66add2cd522', 'old', 'Old House', '{"language": "en-GB", "dateOrder": "dmy", "yearPivot": 68, "decimalMark": "."}', false, 1);
INSERT INTO public.instance VALUES
	('b461a8ce');
INSERT INTO public.kysely_migration VALUES
	('0001-first-thread', '2026-11-29T14:20:50.733Z'),
	('0002-write-cell', '2026-11-29T14:20:50.736Z'),
	('0003-sources-in-full', '2026-11-29T14:20:50.746Z');
INSERT INTO public.kysely_migration_lock VALUES
	('migration_lock', 0);
INSERT INTO public.ledger OVERRIDING SYSTEM VALUE VALUES
	('b3f56e81-09c3-441c-879f-e66add2cd522', 1, '2026-11-29 14:20:51.220149+00', '946e317a-2e92-4ae8-93e5-151c2817344c', 'cell.written', 'e652ab69-634e-4e78-bad1-3743b6cbd064', 'b98a9eee-d54b-45ec-b527-7c2166ecd39c', 'pilot', 2, 'Tam Ossel', 'Rook Tansy', NULL),
	('b3f56e81-09c3-441c-879f-e66add2cd522', 2, '2026-11-29 14:20:51.24263+00', '946e317a-2e92-4ae8-93e5-151c2817344c', 'entry.deleted', 'e652ab69-634e-4e78-bad1-3743b6cbd064', '909a6b7e-4402-47f8-8d5b-1fcd6ef568b6', NULL, NULL, NULL, NULL, '{"visit": "V3"}');
INSERT INTO public.people VALUES
	('b3f56e81-09c3-441c-879f-e66add2cd522', '946e317a-2e92-4ae8-93e5-151c2817344c', 'The administrator', 'administrator', 'administrator', 'administrator', '$argon2id$v=19$m=19456,t=2,p=1$gX3F8TF5tIS2FDelUwNyjw$5Nm6BplzE9Oox2VqYwORiixEdXZQfxN/EwiDmgurRKo'),
	('b3f56e81-09c3-441c-879f-e66add2cd522', 'b73e3f7d-dc14-4acd-a17e-4d2d925e853c', 'The clerk', 'clerk', 'clerk', 'clerk', '$argon2id$v=19$m=19456,t=2,p=1$/qSnjpSNemiW6xVWZnUFkg$4n65DqzTUxwvbBixSDwD0emGeouhqUI5DRQfeCJRS7M'),
	('b3f56e81-09c3-441c-879f-e66add2cd522', '2eaa5795-1e44-4823-ae6a-9698c963982a', 'The reader', 'reader', 'reader', 'reader', '$argon2id$v=19$m=19456,t=2,p=1$hZQL/jVNQ/gjpfoKcw5Z4A$ElaFiTXI0sKD4Zf2+6Wjm2E6yqRursGDtjKBL+Iov4I');
INSERT INTO public.range_stretches VALUES
	('b3f56e81-09c3-441c-879f-e66add2cd522', '93d44079-aba9-49af-b822-e9777fbf55d7', 0, 'd4bb6520-9394-4c05-83eb-f7851ebbd6a5', '["value"]', '{"at": "top"}', '{"ends": "last"}');
INSERT INTO public.ranges VALUES
	('b3f56e81-09c3-441c-879f-e66add2cd522', '93d44079-aba9-49af-b822-e9777fbf55d7', 'Pilots', 'pilots', 'list', false);
INSERT INTO public.registers VALUES
	('b3f56e81-09c3-441c-879f-e66add2cd522', 'd4bb6520-9394-4c05-83eb-f7851ebbd6a5', '2d710527-ce27-4d09-8f23-284525e76865', 'Pilots', 2),
	('b3f56e81-09c3-441c-879f-e66add2cd522', '295349ba-b331-4d5a-a840-e77dfc8955e5', '2d710527-ce27-4d09-8f23-284525e76865', 'Quays', 4),
	('b3f56e81-09c3-441c-879f-e66add2cd522', 'e652ab69-634e-4e78-bad1-3743b6cbd064', '8ed6a116-d2ee-41fe-a3c2-83a1701f7dca', 'Visits', 7);
INSERT INTO public.sessions VALUES
	('b3f56e81-09c3-441c-879f-e66add2cd522', '\x1c316e836bec712a3e19da7bc992ee5dfdb70145b0fe23ae3f53886010e38748', '946e317a-2e92-4ae8-93e5-151c2817344c', '2026-11-29 14:20:51.13882+00', '2026-12-13 14:20:51.141+00');
INSERT INTO public.sheets VALUES
	('b3f56e81-09c3-441c-879f-e66add2cd522', '2d710527-ce27-4d09-8f23-284525e76865', 'source', 'Lists', '', 1, false),
	('b3f56e81-09c3-441c-879f-e66add2cd522', '8ed6a116-d2ee-41fe-a3c2-83a1701f7dca', 'entry', 'Visits', '', 6, false);
INSERT INTO public.value_counts VALUES
	('b3f56e81-09c3-441c-879f-e66add2cd522', '06029a27-1c64-4a15-9e34-3b689fd83635', 'Bryn Calloway', 1),
	('b3f56e81-09c3-441c-879f-e66add2cd522', '06029a27-1c64-4a15-9e34-3b689fd83635', 'Rook Tansy', 1),
	('b3f56e81-09c3-441c-879f-e66add2cd522', '06029a27-1c64-4a15-9e34-3b689fd83635', 'Tam Ossel', 1),
	('b3f56e81-09c3-441c-879f-e66add2cd522', 'ec78f06d-0288-4926-9f93-42b7e573f292', 'North', 1),
	('b3f56e81-09c3-441c-879f-e66add2cd522', 'ec78f06d-0288-4926-9f93-42b7e573f292', 'South', 1),
	('b3f56e81-09c3-441c-879f-e66add2cd522', '4718d56c-960d-494e-8d5b-28021fa2b841', 'V1', 1),
	('b3f56e81-09c3-441c-879f-e66add2cd522', '4718d56c-960d-494e-8d5b-28021fa2b841', 'V2', 1),
	('b3f56e81-09c3-441c-879f-e66add2cd522', '4718d56c-960d-494e-8d5b-28021fa2b841', 'V3', 1),
	('b3f56e81-09c3-441c-879f-e66add2cd522', '9789e357-4e4f-4324-b6ff-752236a891d7', '2026-11-24', 1),
	('b3f56e81-09c3-441c-879f-e66add2cd522', 'e90a816e-5a43-4644-b6d7-e0789fb2bee2', 'Tam', 1),
	('b3f56e81-09c3-441c-879f-e66add2cd522', 'e90a816e-5a43-4644-b6d7-e0789fb2bee2', 'Tam Ossel', 1);
INSERT INTO public.value_deltas OVERRIDING SYSTEM VALUE VALUES
	('b3f56e81-09c3-441c-879f-e66add2cd522', 1, 'e90a816e-5a43-4644-b6d7-e0789fb2bee2', 'Tam Ossel', -1),
	('b3f56e81-09c3-441c-879f-e66add2cd522', 2, 'e90a816e-5a43-4644-b6d7-e0789fb2bee2', 'Rook Tansy', 1),
	('b3f56e81-09c3-441c-879f-e66add2cd522', 3, '4718d56c-960d-494e-8d5b-28021fa2b841', 'V3', -1);
SELECT pg_catalog.setval('public.acts_id_seq', 1, false);
SELECT pg_catalog.setval('public.catalog_changes_id_seq', 1, false);
SELECT pg_catalog.setval('public.ledger_id_seq', 2, true);
SELECT pg_catalog.setval('public.sign_in_tries_id_seq', 1, false);
SELECT pg_catalog.setval('public.value_deltas_id_seq', 3, true);
ALTER TABLE ONLY public.acts
    ADD CONSTRAINT acts_pkey PRIMARY KEY (house_id, id);
ALTER TABLE ONLY public.carries
    ADD CONSTRAINT carries_pkey PRIMARY KEY (house_id, id);
ALTER TABLE ONLY public.catalog_changes
    ADD CONSTRAINT catalog_changes_pkey PRIMARY KEY (house_id, id);
ALTER TABLE ONLY public.catalogs
    ADD CONSTRAINT catalogs_house_id_key_key UNIQUE (house_id, key);
ALTER TABLE ONLY public.catalogs
    ADD CONSTRAINT catalogs_pkey PRIMARY KEY (house_id, id);
ALTER TABLE ONLY public.changes
    ADD CONSTRAINT changes_pkey PRIMARY KEY (house_id, seq);
ALTER TABLE ONLY public.chunks
    ADD CONSTRAINT chunks_pkey PRIMARY KEY (house_id, register_id, from_pos);
ALTER TABLE ONLY public.entries
    ADD CONSTRAINT entries_pkey PRIMARY KEY (house_id, register_id, id);
ALTER TABLE ONLY public.fields
    ADD CONSTRAINT fields_house_id_register_id_key_key UNIQUE (house_id, register_id, key);
ALTER TABLE ONLY public.fields
    ADD CONSTRAINT fields_pkey PRIMARY KEY (house_id, id);
ALTER TABLE ONLY public.house_counters
    ADD CONSTRAINT house_counters_pkey PRIMARY KEY (house_id);
ALTER TABLE ONLY public.houses
    ADD CONSTRAINT houses_key_key UNIQUE (key);
ALTER TABLE ONLY public.houses
    ADD CONSTRAINT houses_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.instance
    ADD CONSTRAINT instance_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.kept_items
    ADD CONSTRAINT kept_items_pkey PRIMARY KEY (house_id, catalog_id, key);
ALTER TABLE ONLY public.kysely_migration_lock
    ADD CONSTRAINT kysely_migration_lock_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.kysely_migration
    ADD CONSTRAINT kysely_migration_pkey PRIMARY KEY (name);
ALTER TABLE ONLY public.ledger
    ADD CONSTRAINT ledger_pkey PRIMARY KEY (house_id, id);
ALTER TABLE ONLY public.linked_sources
    ADD CONSTRAINT linked_sources_house_id_name_key_key UNIQUE (house_id, name_key);
ALTER TABLE ONLY public.linked_sources
    ADD CONSTRAINT linked_sources_pkey PRIMARY KEY (house_id, id);
ALTER TABLE ONLY public.other_names
    ADD CONSTRAINT other_names_pkey PRIMARY KEY (house_id, catalog_id, name);
ALTER TABLE ONLY public.people
    ADD CONSTRAINT people_house_id_sign_in_key_key UNIQUE (house_id, sign_in_key);
ALTER TABLE ONLY public.people
    ADD CONSTRAINT people_pkey PRIMARY KEY (house_id, id);
ALTER TABLE ONLY public.range_stretches
    ADD CONSTRAINT range_stretches_pkey PRIMARY KEY (house_id, range_id, ord);
ALTER TABLE ONLY public.ranges
    ADD CONSTRAINT ranges_house_id_name_key_key UNIQUE (house_id, name_key);
ALTER TABLE ONLY public.ranges
    ADD CONSTRAINT ranges_pkey PRIMARY KEY (house_id, id);
ALTER TABLE ONLY public.registers
    ADD CONSTRAINT registers_pkey PRIMARY KEY (house_id, id);
ALTER TABLE ONLY public.sessions
    ADD CONSTRAINT sessions_pkey PRIMARY KEY (house_id, token_hash);
ALTER TABLE ONLY public.sheets
    ADD CONSTRAINT sheets_pkey PRIMARY KEY (house_id, id);
ALTER TABLE ONLY public.sign_in_tries
    ADD CONSTRAINT sign_in_tries_pkey PRIMARY KEY (house_id, id);
ALTER TABLE ONLY public.slips
    ADD CONSTRAINT slips_pkey PRIMARY KEY (house_id, id);
ALTER TABLE ONLY public.value_counts
    ADD CONSTRAINT value_counts_pkey PRIMARY KEY (house_id, field_id, value);
ALTER TABLE ONLY public.value_deltas
    ADD CONSTRAINT value_deltas_pkey PRIMARY KEY (house_id, id);
CREATE INDEX carries_open ON public.carries USING btree (house_id) WHERE (finished_at IS NULL);
CREATE INDEX catalog_changes_catalog ON public.catalog_changes USING btree (house_id, catalog_id, id);
CREATE INDEX entries_pos ON public.entries USING btree (house_id, register_id, pos);
CREATE INDEX ledger_entry ON public.ledger USING btree (house_id, entry_id, field_key) WHERE (entry_id IS NOT NULL);
CREATE INDEX sessions_person ON public.sessions USING btree (house_id, person_id);
CREATE INDEX sign_in_tries_at ON public.sign_in_tries USING btree (house_id, at);
CREATE INDEX value_deltas_value ON public.value_deltas USING btree (house_id, field_id, value);
ALTER TABLE ONLY public.acts
    ADD CONSTRAINT acts_house_id_fkey FOREIGN KEY (house_id) REFERENCES public.houses(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.carries
    ADD CONSTRAINT carries_house_id_field_id_fkey FOREIGN KEY (house_id, field_id) REFERENCES public.fields(house_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.catalog_changes
    ADD CONSTRAINT catalog_changes_house_id_catalog_id_fkey FOREIGN KEY (house_id, catalog_id) REFERENCES public.catalogs(house_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.catalogs
    ADD CONSTRAINT catalogs_house_id_fkey FOREIGN KEY (house_id) REFERENCES public.houses(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.changes
    ADD CONSTRAINT changes_house_id_fkey FOREIGN KEY (house_id) REFERENCES public.houses(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.chunks
    ADD CONSTRAINT chunks_house_id_register_id_fkey FOREIGN KEY (house_id, register_id) REFERENCES public.registers(house_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.entries
    ADD CONSTRAINT entries_house_id_register_id_fkey FOREIGN KEY (house_id, register_id) REFERENCES public.registers(house_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.fields
    ADD CONSTRAINT fields_house_id_catalog_id_fkey FOREIGN KEY (house_id, catalog_id) REFERENCES public.catalogs(house_id, id);
ALTER TABLE ONLY public.fields
    ADD CONSTRAINT fields_house_id_register_id_fkey FOREIGN KEY (house_id, register_id) REFERENCES public.registers(house_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.house_counters
    ADD CONSTRAINT house_counters_house_id_fkey FOREIGN KEY (house_id) REFERENCES public.houses(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.kept_items
    ADD CONSTRAINT kept_items_house_id_catalog_id_fkey FOREIGN KEY (house_id, catalog_id) REFERENCES public.catalogs(house_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.ledger
    ADD CONSTRAINT ledger_house_id_fkey FOREIGN KEY (house_id) REFERENCES public.houses(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.linked_sources
    ADD CONSTRAINT linked_sources_house_id_fkey FOREIGN KEY (house_id) REFERENCES public.houses(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.other_names
    ADD CONSTRAINT other_names_house_id_catalog_id_fkey FOREIGN KEY (house_id, catalog_id) REFERENCES public.catalogs(house_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.people
    ADD CONSTRAINT people_house_id_fkey FOREIGN KEY (house_id) REFERENCES public.houses(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.range_stretches
    ADD CONSTRAINT range_stretches_house_id_range_id_fkey FOREIGN KEY (house_id, range_id) REFERENCES public.ranges(house_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.range_stretches
    ADD CONSTRAINT range_stretches_house_id_register_id_fkey FOREIGN KEY (house_id, register_id) REFERENCES public.registers(house_id, id);
ALTER TABLE ONLY public.registers
    ADD CONSTRAINT registers_house_id_sheet_id_fkey FOREIGN KEY (house_id, sheet_id) REFERENCES public.sheets(house_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.sessions
    ADD CONSTRAINT sessions_house_id_person_id_fkey FOREIGN KEY (house_id, person_id) REFERENCES public.people(house_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.sheets
    ADD CONSTRAINT sheets_house_id_fkey FOREIGN KEY (house_id) REFERENCES public.houses(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.sign_in_tries
    ADD CONSTRAINT sign_in_tries_house_id_fkey FOREIGN KEY (house_id) REFERENCES public.houses(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.slips
    ADD CONSTRAINT slips_house_id_person_id_fkey FOREIGN KEY (house_id, person_id) REFERENCES public.people(house_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.value_counts
    ADD CONSTRAINT value_counts_house_id_field_id_fkey FOREIGN KEY (house_id, field_id) REFERENCES public.fields(house_id, id) ON DELETE CASCADE;
