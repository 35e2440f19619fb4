SELECT pg_catalog.set_config('search_path', '', false);
CREATE COLLATION public.natural_order (provider = icu, locale = 'und-u-kn-true');
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
CREATE TABLE public.arranged_entries (
    house_id uuid NOT NULL,
    person_id uuid NOT NULL,
    register_id uuid NOT NULL,
    chunk integer NOT NULL,
    entries uuid[] NOT NULL
);
CREATE TABLE public.arrangements (
    house_id uuid NOT NULL,
    person_id uuid NOT NULL,
    register_id uuid NOT NULL,
    version integer NOT NULL,
    body jsonb NOT NULL,
    shape bigint,
    entries integer
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
    finished_at timestamp with time zone,
    act_id bigint
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
CREATE TABLE public.entry_acts (
    house_id uuid NOT NULL,
    id bigint NOT NULL,
    person_id uuid NOT NULL,
    register_id uuid NOT NULL,
    at timestamp with time zone DEFAULT now() NOT NULL,
    deed jsonb NOT NULL,
    fields jsonb NOT NULL,
    entries uuid[] NOT NULL,
    done integer DEFAULT 0 NOT NULL,
    state text DEFAULT 'under way'::text NOT NULL,
    outcome jsonb NOT NULL
);
ALTER TABLE public.entry_acts ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.entry_acts_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
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
CREATE TABLE public.figures (
    house_id uuid NOT NULL,
    id uuid NOT NULL,
    register_id uuid NOT NULL,
    title text NOT NULL,
    definition jsonb NOT NULL,
    person_id uuid NOT NULL
);
CREATE TABLE public.form_fillings (
    house_id uuid NOT NULL,
    form_id uuid NOT NULL,
    submission uuid NOT NULL,
    version integer NOT NULL,
    entry_id uuid NOT NULL,
    link_id uuid,
    at timestamp with time zone DEFAULT now() NOT NULL
);
CREATE TABLE public.form_links (
    house_id uuid NOT NULL,
    id uuid NOT NULL,
    form_id uuid NOT NULL,
    token_hash bytea NOT NULL,
    expires_at timestamp with time zone NOT NULL,
    per_hour integer NOT NULL,
    person_id uuid NOT NULL,
    at timestamp with time zone DEFAULT now() NOT NULL,
    closed_at timestamp with time zone
);
CREATE TABLE public.form_versions (
    house_id uuid NOT NULL,
    form_id uuid NOT NULL,
    version integer NOT NULL,
    title text NOT NULL,
    layout jsonb NOT NULL,
    at timestamp with time zone DEFAULT now() NOT NULL,
    person_id uuid NOT NULL
);
CREATE TABLE public.forms (
    house_id uuid NOT NULL,
    id uuid NOT NULL,
    register_id uuid NOT NULL,
    title text NOT NULL,
    layout jsonb NOT NULL,
    edition integer DEFAULT 1 NOT NULL,
    published integer
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
    detail jsonb,
    act_id bigint
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
    made_by uuid,
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
    ord integer NOT NULL,
    shape bigint DEFAULT 0 NOT NULL
);
CREATE TABLE public.requests (
    house_id uuid NOT NULL,
    id uuid NOT NULL,
    catalog_id uuid NOT NULL,
    field_id uuid NOT NULL,
    entry_id uuid NOT NULL,
    path jsonb NOT NULL,
    value text NOT NULL,
    person_id uuid,
    at timestamp with time zone DEFAULT now() NOT NULL,
    state text DEFAULT 'waiting'::text NOT NULL,
    answer text,
    word text,
    answered_by uuid,
    answered_at timestamp with time zone
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
CREATE TABLE public.stewards (
    house_id uuid NOT NULL,
    catalog_id uuid NOT NULL,
    person_id uuid NOT NULL
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
INSERT INTO public.acts OVERRIDING SYSTEM VALUE VALUES
	('732b434f-ad14-4489-92df-c6df4add8cb2', 1, '10de35c6-1ee3-4b56-9e7a-9c8119003b68', '2026-11-29 14:19:25.300816+00', '["4ff6aa07-fedf-4be8-bb79-dd6c6693b649"]', '{"steps": [{"act": {"act": "insert", "before": null, "entries": [{"id": "fb3b4fce-6940-47eb-a452-85682a5b627d", "cells": {"value": "Corin Vale"}}]}, "what": "act", "registerId": "4ff6aa07-fedf-4be8-bb79-dd6c6693b649"}], "meanings": []}', '[{"act": {"act": "delete", "entries": ["fb3b4fce-6940-47eb-a452-85682a5b627d"]}, "what": "act", "registerId": "4ff6aa07-fedf-4be8-bb79-dd6c6693b649"}]', 'done');
INSERT INTO public.catalog_changes OVERRIDING SYSTEM VALUE VALUES
	('732b434f-ad14-4489-92df-c6df4add8cb2', 1, '7c667f18-6b6a-4bc3-900b-1ab29fc24c83', '2026-11-29 14:19:25.300816+00', '10de35c6-1ee3-4b56-9e7a-9c8119003b68', 1, 2, '[{"after": {"from": [], "path": [], "label": "Corin Vale", "state": "offered", "value": "Corin Vale", "otherNames": []}, "before": null}]', NULL, NULL);
INSERT INTO public.catalogs VALUES
	('732b434f-ad14-4489-92df-c6df4add8cb2', '7c667f18-6b6a-4bc3-900b-1ab29fc24c83', 'pilots', 'Pilots', '', 2, '{"order": {"by": "kept"}, "parts": [{"join": "or", "kind": "range", "label": null, "rangeId": "b7dc063f-8658-4a15-949e-290410b403b2", "companions": []}], "filter": null, "distinct": "value"}');
INSERT INTO public.changes VALUES
	('732b434f-ad14-4489-92df-c6df4add8cb2', 1, 'administrators', '{"kind": "people"}', '2026-11-29 14:19:25.164615+00'),
	('732b434f-ad14-4489-92df-c6df4add8cb2', 2, 'everyone', '{"by": "10de35c6-1ee3-4b56-9e7a-9c8119003b68", "kind": "cells", "cells": {"pilot": "Rook Tansy"}, "entryId": "e1c56ad1-cbfb-4b23-9231-090c1c050517", "version": 2, "registerId": "dfbdea86-ccf8-477d-b5cb-878d1eb44f48"}', '2026-11-29 14:19:25.250887+00'),
	('732b434f-ad14-4489-92df-c6df4add8cb2', 3, 'everyone', '{"by": "10de35c6-1ee3-4b56-9e7a-9c8119003b68", "kind": "cells", "cells": {"fee": "12.5"}, "entryId": "e1c56ad1-cbfb-4b23-9231-090c1c050517", "version": 3, "registerId": "dfbdea86-ccf8-477d-b5cb-878d1eb44f48"}', '2026-11-29 14:19:25.274019+00'),
	('732b434f-ad14-4489-92df-c6df4add8cb2', 4, 'everyone', '{"kind": "register", "registerId": "dfbdea86-ccf8-477d-b5cb-878d1eb44f48"}', '2026-11-29 14:19:25.285311+00'),
	('732b434f-ad14-4489-92df-c6df4add8cb2', 5, 'everyone', '{"kind": "build", "version": 2}', '2026-11-29 14:19:25.300816+00'),
	('732b434f-ad14-4489-92df-c6df4add8cb2', 6, 'administrators', '{"kind": "register", "registerId": "4ff6aa07-fedf-4be8-bb79-dd6c6693b649"}', '2026-11-29 14:19:25.300816+00'),
	('732b434f-ad14-4489-92df-c6df4add8cb2', 7, 'everyone', '{"kind": "catalog", "version": 2, "catalogId": "7c667f18-6b6a-4bc3-900b-1ab29fc24c83"}', '2026-11-29 14:19:25.300816+00');
INSERT INTO public.chunks VALUES
	('732b434f-ad14-4489-92df-c6df4add8cb2', '880ef57f-dbfc-4fee-8536-33e9e7db8f42', -4611686018427387904, 2),
	('732b434f-ad14-4489-92df-c6df4add8cb2', 'dfbdea86-ccf8-477d-b5cb-878d1eb44f48', -4611686018427387904, 2),
	('732b434f-ad14-4489-92df-c6df4add8cb2', '4ff6aa07-fedf-4be8-bb79-dd6c6693b649', -4611686018427387904, 4);
INSERT INTO public.entries VALUES
	('732b434f-ad14-4489-92df-c6df4add8cb2', '4ff6aa07-fedf-4be8-bb79-dd6c6693b649', 'a7398f07-05d3-437c-a040-8c9e74b3d5c4', 4294967296, 1, '{"value": "Tam Ossel"}'),
	('732b434f-ad14-4489-92df-c6df4add8cb2', '4ff6aa07-fedf-4be8-bb79-dd6c6693b649', '4234d459-5bd2-4570-90c5-0d0dc72116b2', 8589934592, 1, '{"value": "Bryn Calloway"}'),
	('732b434f-ad14-4489-92df-c6df4add8cb2', '4ff6aa07-fedf-4be8-bb79-dd6c6693b649', '4cb29a82-eee0-4b04-a502-17b1fbb01e37', 12884901888, 1, '{"value": "Rook Tansy"}'),
	('732b434f-ad14-4489-92df-c6df4add8cb2', '880ef57f-dbfc-4fee-8536-33e9e7db8f42', '4dc9f59d-5a63-4024-8308-1b6276059c45', 4294967296, 1, '{"value": "North"}'),
	('732b434f-ad14-4489-92df-c6df4add8cb2', '880ef57f-dbfc-4fee-8536-33e9e7db8f42', '2e3ea3f5-2ade-4cbf-bbae-b2919c96b1fa', 8589934592, 1, '{"value": "South"}'),
	('732b434f-ad14-4489-92df-c6df4add8cb2', 'dfbdea86-ccf8-477d-b5cb-878d1eb44f48', 'e69847c9-f0d1-445f-bbb7-6a8432d65845', 8589934592, 1, '{"pilot": "Tam", "visit": "V2"}'),
	('732b434f-ad14-4489-92df-c6df4add8cb2', 'dfbdea86-ccf8-477d-b5cb-878d1eb44f48', 'e1c56ad1-cbfb-4b23-9231-090c1c050517', 4294967296, 3, '{"fee": "12.5", "pilot": "Rook Tansy", "visit": "V1", "arrival": "2026-11-24"}'),
	('732b434f-ad14-4489-92df-c6df4add8cb2', '4ff6aa07-fedf-4be8-bb79-dd6c6693b649', 'fb3b4fce-6940-47eb-a452-85682a5b627d', 17179869184, 1, '{"value": "Corin Vale"}');
INSERT INTO public.fields VALUES
	('732b434f-ad14-4489-92df-c6df4add8cb2', '75aea352-b6a8-4c82-b14c-79af4bd9b77c', '4ff6aa07-fedf-4be8-bb79-dd6c6693b649', 'value', 'Pilots', 'text', 160, 3, NULL, NULL),
	('732b434f-ad14-4489-92df-c6df4add8cb2', '36282cce-13f3-4bd3-9966-e61b8dc99585', '880ef57f-dbfc-4fee-8536-33e9e7db8f42', 'value', 'Quays', 'text', 160, 5, NULL, NULL),
	('732b434f-ad14-4489-92df-c6df4add8cb2', 'c8607d28-3fcb-427e-a21d-becd4993b70c', 'dfbdea86-ccf8-477d-b5cb-878d1eb44f48', 'visit', 'Visit', 'text', 90, 8, NULL, NULL),
	('732b434f-ad14-4489-92df-c6df4add8cb2', 'e222508a-2947-476f-885b-1d5252afd3ff', 'dfbdea86-ccf8-477d-b5cb-878d1eb44f48', 'arrival', 'Arrival', 'date', 100, 10, NULL, NULL),
	('732b434f-ad14-4489-92df-c6df4add8cb2', 'a042581d-2fc3-45cf-a545-d473c1339cdb', 'dfbdea86-ccf8-477d-b5cb-878d1eb44f48', 'fee', 'Fee', 'amount', 100, 11, NULL, NULL),
	('732b434f-ad14-4489-92df-c6df4add8cb2', '49c819c5-bdde-40a0-b438-78d3b1bae70a', 'dfbdea86-ccf8-477d-b5cb-878d1eb44f48', 'pilot', 'Pilot', 'text', 120, 9, '{"day": null, "hint": "Who?", "kind": "catalog", "level": null, "where": null, "begins": {"with": "empty", "value": ""}, "brings": [], "misfit": "clear", "others": "refuse", "fitting": [], "parents": [], "picking": {"list": true, "most": null, "lines": 8, "search": "anywhere"}, "catalogId": "7c667f18-6b6a-4bc3-900b-1ab29fc24c83", "noRepeats": false, "mayBeBlank": true, "blankParent": "nothing", "fillsSingle": false, "refusalText": ""}', '7c667f18-6b6a-4bc3-900b-1ab29fc24c83');
INSERT INTO public.house_counters VALUES
	('732b434f-ad14-4489-92df-c6df4add8cb2', 7);
INSERT INTO public.houses VALUES
	('732b434f-ad14-4489-92df-c6df4add8cb2', 'old', 'Old House', '{"currency": "EUR", "language": "en-GB", "dateOrder": "dmy", "yearPivot": 68, "decimalMark": "."}', false, 2);
INSERT INTO public.instance VALUES
	('b1973afb');
INSERT INTO public.kysely_migration VALUES
	('0001-first-thread', '2026-11-29T14:19:24.642Z'),
	('0002-write-cell', '2026-11-29T14:19:24.645Z'),
	('0003-sources-in-full', '2026-11-29T14:19:24.662Z'),
	('0004-rules-in-full', '2026-11-29T14:19:24.663Z'),
	('0005-the-sheet-in-full', '2026-11-29T14:19:24.682Z'),
	('0006-taking-lists-back', '2026-11-29T14:19:24.685Z'),
	('0007-forms', '2026-11-29T14:19:24.694Z'),
	('0008-figures', '2026-11-29T14:19:24.697Z');
INSERT INTO public.kysely_migration_lock VALUES
	('migration_lock', 0);
INSERT INTO public.ledger OVERRIDING SYSTEM VALUE VALUES
	('732b434f-ad14-4489-92df-c6df4add8cb2', 1, '2026-11-29 14:19:25.250887+00', '10de35c6-1ee3-4b56-9e7a-9c8119003b68', 'cell.written', 'dfbdea86-ccf8-477d-b5cb-878d1eb44f48', 'e1c56ad1-cbfb-4b23-9231-090c1c050517', 'pilot', 2, 'Tam Ossel', 'Rook Tansy', NULL, NULL),
	('732b434f-ad14-4489-92df-c6df4add8cb2', 2, '2026-11-29 14:19:25.274019+00', '10de35c6-1ee3-4b56-9e7a-9c8119003b68', 'cell.written', 'dfbdea86-ccf8-477d-b5cb-878d1eb44f48', 'e1c56ad1-cbfb-4b23-9231-090c1c050517', 'fee', 3, NULL, '12.5', NULL, NULL),
	('732b434f-ad14-4489-92df-c6df4add8cb2', 3, '2026-11-29 14:19:25.285311+00', '10de35c6-1ee3-4b56-9e7a-9c8119003b68', 'entry.deleted', 'dfbdea86-ccf8-477d-b5cb-878d1eb44f48', '6a89dc55-cc32-43d1-815a-c9045542c212', NULL, NULL, '12884901888', NULL, '{"visit": "V3"}', NULL),
	('732b434f-ad14-4489-92df-c6df4add8cb2', 4, '2026-11-29 14:19:25.300816+00', '10de35c6-1ee3-4b56-9e7a-9c8119003b68', 'entry.inserted', '4ff6aa07-fedf-4be8-bb79-dd6c6693b649', 'fb3b4fce-6940-47eb-a452-85682a5b627d', NULL, NULL, NULL, NULL, '{"value": "Corin Vale"}', NULL),
	('732b434f-ad14-4489-92df-c6df4add8cb2', 5, '2026-11-29 14:19:25.300816+00', '10de35c6-1ee3-4b56-9e7a-9c8119003b68', 'item.added', NULL, NULL, NULL, NULL, NULL, 'Corin Vale', '{"catalogId": "7c667f18-6b6a-4bc3-900b-1ab29fc24c83"}', NULL);
INSERT INTO public.people VALUES
	('732b434f-ad14-4489-92df-c6df4add8cb2', '10de35c6-1ee3-4b56-9e7a-9c8119003b68', 'The administrator', 'administrator', 'administrator', 'administrator', '$argon2id$v=19$m=19456,t=2,p=1$kZKrRswyYUrhF+YN6kNetQ$N6iXiJOcgMkIB9EW8Zi5LsSLmHC/OjAvuXEiCjmh4LE'),
	('732b434f-ad14-4489-92df-c6df4add8cb2', '285e047b-9d0b-429b-b3c1-cbb20f2136fc', 'The clerk', 'clerk', 'clerk', 'clerk', '$argon2id$v=19$m=19456,t=2,p=1$kZKrRswyYUrhF+YN6kNetQ$N6iXiJOcgMkIB9EW8Zi5LsSLmHC/OjAvuXEiCjmh4LE'),
	('732b434f-ad14-4489-92df-c6df4add8cb2', 'e828d1a0-d29e-481e-aeb4-43ebb5a5cd4b', 'The reader', 'reader', 'reader', 'reader', '$argon2id$v=19$m=19456,t=2,p=1$kZKrRswyYUrhF+YN6kNetQ$N6iXiJOcgMkIB9EW8Zi5LsSLmHC/OjAvuXEiCjmh4LE');
INSERT INTO public.range_stretches VALUES
	('732b434f-ad14-4489-92df-c6df4add8cb2', 'b7dc063f-8658-4a15-949e-290410b403b2', 0, '4ff6aa07-fedf-4be8-bb79-dd6c6693b649', '["value"]', '{"at": "top"}', '{"ends": "last"}');
INSERT INTO public.ranges VALUES
	('732b434f-ad14-4489-92df-c6df4add8cb2', 'b7dc063f-8658-4a15-949e-290410b403b2', 'Pilots', 'pilots', 'list', false);
INSERT INTO public.registers VALUES
	('732b434f-ad14-4489-92df-c6df4add8cb2', '880ef57f-dbfc-4fee-8536-33e9e7db8f42', 'fc068282-cc57-4a2a-a3c7-1a5e6537aab5', 'Quays', 4, 1),
	('732b434f-ad14-4489-92df-c6df4add8cb2', 'dfbdea86-ccf8-477d-b5cb-878d1eb44f48', '660557de-fcaa-42a9-96bd-d5a9331e3860', 'Visits', 7, 2),
	('732b434f-ad14-4489-92df-c6df4add8cb2', '4ff6aa07-fedf-4be8-bb79-dd6c6693b649', 'fc068282-cc57-4a2a-a3c7-1a5e6537aab5', 'Pilots', 2, 2);
INSERT INTO public.sessions VALUES
	('732b434f-ad14-4489-92df-c6df4add8cb2', '\xc27f3eba1b587d8505bbbafd17cdd728643ef73d759c5b51e42baba5f91fe983', '10de35c6-1ee3-4b56-9e7a-9c8119003b68', '2026-11-29 14:19:25.164615+00', '2026-12-13 14:19:25.167+00');
INSERT INTO public.sheets VALUES
	('732b434f-ad14-4489-92df-c6df4add8cb2', 'fc068282-cc57-4a2a-a3c7-1a5e6537aab5', 'source', 'Lists', '', 1, false),
	('732b434f-ad14-4489-92df-c6df4add8cb2', '660557de-fcaa-42a9-96bd-d5a9331e3860', 'entry', 'Visits', '', 6, false);
INSERT INTO public.value_counts VALUES
	('732b434f-ad14-4489-92df-c6df4add8cb2', '75aea352-b6a8-4c82-b14c-79af4bd9b77c', 'Bryn Calloway', 1),
	('732b434f-ad14-4489-92df-c6df4add8cb2', '75aea352-b6a8-4c82-b14c-79af4bd9b77c', 'Rook Tansy', 1),
	('732b434f-ad14-4489-92df-c6df4add8cb2', '75aea352-b6a8-4c82-b14c-79af4bd9b77c', 'Tam Ossel', 1),
	('732b434f-ad14-4489-92df-c6df4add8cb2', '36282cce-13f3-4bd3-9966-e61b8dc99585', 'North', 1),
	('732b434f-ad14-4489-92df-c6df4add8cb2', '36282cce-13f3-4bd3-9966-e61b8dc99585', 'South', 1),
	('732b434f-ad14-4489-92df-c6df4add8cb2', '49c819c5-bdde-40a0-b438-78d3b1bae70a', 'Tam', 1),
	('732b434f-ad14-4489-92df-c6df4add8cb2', '49c819c5-bdde-40a0-b438-78d3b1bae70a', 'Tam Ossel', 1),
	('732b434f-ad14-4489-92df-c6df4add8cb2', 'c8607d28-3fcb-427e-a21d-becd4993b70c', 'V1', 1),
	('732b434f-ad14-4489-92df-c6df4add8cb2', 'c8607d28-3fcb-427e-a21d-becd4993b70c', 'V2', 1),
	('732b434f-ad14-4489-92df-c6df4add8cb2', 'c8607d28-3fcb-427e-a21d-becd4993b70c', 'V3', 1),
	('732b434f-ad14-4489-92df-c6df4add8cb2', 'e222508a-2947-476f-885b-1d5252afd3ff', '2026-11-24', 1);
INSERT INTO public.value_deltas OVERRIDING SYSTEM VALUE VALUES
	('732b434f-ad14-4489-92df-c6df4add8cb2', 1, '49c819c5-bdde-40a0-b438-78d3b1bae70a', 'Tam Ossel', -1),
	('732b434f-ad14-4489-92df-c6df4add8cb2', 2, '49c819c5-bdde-40a0-b438-78d3b1bae70a', 'Rook Tansy', 1),
	('732b434f-ad14-4489-92df-c6df4add8cb2', 3, 'a042581d-2fc3-45cf-a545-d473c1339cdb', '12.5', 1),
	('732b434f-ad14-4489-92df-c6df4add8cb2', 4, 'c8607d28-3fcb-427e-a21d-becd4993b70c', 'V3', -1),
	('732b434f-ad14-4489-92df-c6df4add8cb2', 5, '75aea352-b6a8-4c82-b14c-79af4bd9b77c', 'Corin Vale', 1);
SELECT pg_catalog.setval('public.acts_id_seq', 1, true);
SELECT pg_catalog.setval('public.catalog_changes_id_seq', 1, true);
SELECT pg_catalog.setval('public.entry_acts_id_seq', 1, false);
SELECT pg_catalog.setval('public.ledger_id_seq', 5, true);
SELECT pg_catalog.setval('public.sign_in_tries_id_seq', 1, false);
SELECT pg_catalog.setval('public.value_deltas_id_seq', 5, true);
ALTER TABLE ONLY public.acts
    ADD CONSTRAINT acts_pkey PRIMARY KEY (house_id, id);
ALTER TABLE ONLY public.arranged_entries
    ADD CONSTRAINT arranged_entries_pkey PRIMARY KEY (house_id, person_id, register_id, chunk);
ALTER TABLE ONLY public.arrangements
    ADD CONSTRAINT arrangements_pkey PRIMARY KEY (house_id, person_id, register_id);
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
ALTER TABLE ONLY public.entry_acts
    ADD CONSTRAINT entry_acts_pkey PRIMARY KEY (house_id, id);
ALTER TABLE ONLY public.fields
    ADD CONSTRAINT fields_house_id_register_id_key_key UNIQUE (house_id, register_id, key);
ALTER TABLE ONLY public.fields
    ADD CONSTRAINT fields_pkey PRIMARY KEY (house_id, id);
ALTER TABLE ONLY public.figures
    ADD CONSTRAINT figures_pkey PRIMARY KEY (house_id, id);
ALTER TABLE ONLY public.form_fillings
    ADD CONSTRAINT form_fillings_pkey PRIMARY KEY (house_id, form_id, submission);
ALTER TABLE ONLY public.form_links
    ADD CONSTRAINT form_links_pkey PRIMARY KEY (house_id, id);
ALTER TABLE ONLY public.form_links
    ADD CONSTRAINT form_links_token_hash_key UNIQUE (token_hash);
ALTER TABLE ONLY public.form_versions
    ADD CONSTRAINT form_versions_pkey PRIMARY KEY (house_id, form_id, version);
ALTER TABLE ONLY public.forms
    ADD CONSTRAINT forms_pkey PRIMARY KEY (house_id, id);
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
ALTER TABLE ONLY public.requests
    ADD CONSTRAINT requests_pkey PRIMARY KEY (house_id, id);
ALTER TABLE ONLY public.sessions
    ADD CONSTRAINT sessions_pkey PRIMARY KEY (house_id, token_hash);
ALTER TABLE ONLY public.sheets
    ADD CONSTRAINT sheets_pkey PRIMARY KEY (house_id, id);
ALTER TABLE ONLY public.sign_in_tries
    ADD CONSTRAINT sign_in_tries_pkey PRIMARY KEY (house_id, id);
ALTER TABLE ONLY public.slips
    ADD CONSTRAINT slips_pkey PRIMARY KEY (house_id, id);
ALTER TABLE ONLY public.stewards
    ADD CONSTRAINT stewards_pkey PRIMARY KEY (house_id, catalog_id, person_id);
ALTER TABLE ONLY public.value_counts
    ADD CONSTRAINT value_counts_pkey PRIMARY KEY (house_id, field_id, value);
ALTER TABLE ONLY public.value_deltas
    ADD CONSTRAINT value_deltas_pkey PRIMARY KEY (house_id, id);
CREATE INDEX carries_open ON public.carries USING btree (house_id) WHERE (finished_at IS NULL);
CREATE INDEX catalog_changes_catalog ON public.catalog_changes USING btree (house_id, catalog_id, id);
CREATE INDEX entries_pos ON public.entries USING btree (house_id, register_id, pos);
CREATE INDEX form_fillings_entry ON public.form_fillings USING btree (house_id, entry_id);
CREATE INDEX form_fillings_link ON public.form_fillings USING btree (house_id, link_id, at) WHERE (link_id IS NOT NULL);
CREATE INDEX ledger_act ON public.ledger USING btree (house_id, act_id, id) WHERE (act_id IS NOT NULL);
CREATE INDEX ledger_entry ON public.ledger USING btree (house_id, entry_id, field_key) WHERE (entry_id IS NOT NULL);
CREATE INDEX ledger_gathered ON public.ledger USING btree (house_id, register_id, field_key) WHERE (act = ANY (ARRAY['column.gathered'::text, 'column.ungathered'::text]));
CREATE INDEX ledger_rules ON public.ledger USING btree (house_id, id) WHERE (act = ANY (ARRAY['rule.set'::text, 'rule.cleared'::text]));
CREATE INDEX requests_entry ON public.requests USING btree (house_id, field_id, entry_id);
CREATE INDEX requests_waiting ON public.requests USING btree (house_id, catalog_id) WHERE (state = 'waiting'::text);
CREATE INDEX sessions_person ON public.sessions USING btree (house_id, person_id);
CREATE INDEX sign_in_tries_at ON public.sign_in_tries USING btree (house_id, at);
CREATE INDEX value_deltas_value ON public.value_deltas USING btree (house_id, field_id, value);
ALTER TABLE ONLY public.acts
    ADD CONSTRAINT acts_house_id_fkey FOREIGN KEY (house_id) REFERENCES public.houses(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.arranged_entries
    ADD CONSTRAINT arranged_entries_house_id_person_id_register_id_fkey FOREIGN KEY (house_id, person_id, register_id) REFERENCES public.arrangements(house_id, person_id, register_id) ON DELETE CASCADE;
ALTER TABLE ONLY public.arrangements
    ADD CONSTRAINT arrangements_house_id_person_id_fkey FOREIGN KEY (house_id, person_id) REFERENCES public.people(house_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.arrangements
    ADD CONSTRAINT arrangements_house_id_register_id_fkey FOREIGN KEY (house_id, register_id) REFERENCES public.registers(house_id, id) ON DELETE CASCADE;
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
ALTER TABLE ONLY public.entry_acts
    ADD CONSTRAINT entry_acts_house_id_person_id_fkey FOREIGN KEY (house_id, person_id) REFERENCES public.people(house_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.entry_acts
    ADD CONSTRAINT entry_acts_house_id_register_id_fkey FOREIGN KEY (house_id, register_id) REFERENCES public.registers(house_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.fields
    ADD CONSTRAINT fields_house_id_catalog_id_fkey FOREIGN KEY (house_id, catalog_id) REFERENCES public.catalogs(house_id, id);
ALTER TABLE ONLY public.fields
    ADD CONSTRAINT fields_house_id_register_id_fkey FOREIGN KEY (house_id, register_id) REFERENCES public.registers(house_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.figures
    ADD CONSTRAINT figures_house_id_person_id_fkey FOREIGN KEY (house_id, person_id) REFERENCES public.people(house_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.figures
    ADD CONSTRAINT figures_house_id_register_id_fkey FOREIGN KEY (house_id, register_id) REFERENCES public.registers(house_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.form_fillings
    ADD CONSTRAINT form_fillings_house_id_form_id_fkey FOREIGN KEY (house_id, form_id) REFERENCES public.forms(house_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.form_links
    ADD CONSTRAINT form_links_house_id_form_id_fkey FOREIGN KEY (house_id, form_id) REFERENCES public.forms(house_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.form_links
    ADD CONSTRAINT form_links_house_id_person_id_fkey FOREIGN KEY (house_id, person_id) REFERENCES public.people(house_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.form_versions
    ADD CONSTRAINT form_versions_house_id_form_id_fkey FOREIGN KEY (house_id, form_id) REFERENCES public.forms(house_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.form_versions
    ADD CONSTRAINT form_versions_house_id_person_id_fkey FOREIGN KEY (house_id, person_id) REFERENCES public.people(house_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.forms
    ADD CONSTRAINT forms_house_id_register_id_fkey FOREIGN KEY (house_id, register_id) REFERENCES public.registers(house_id, id) ON DELETE CASCADE;
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
ALTER TABLE ONLY public.requests
    ADD CONSTRAINT requests_house_id_catalog_id_fkey FOREIGN KEY (house_id, catalog_id) REFERENCES public.catalogs(house_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.requests
    ADD CONSTRAINT requests_house_id_field_id_fkey FOREIGN KEY (house_id, field_id) REFERENCES public.fields(house_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.requests
    ADD CONSTRAINT requests_house_id_person_id_fkey FOREIGN KEY (house_id, person_id) REFERENCES public.people(house_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.sessions
    ADD CONSTRAINT sessions_house_id_person_id_fkey FOREIGN KEY (house_id, person_id) REFERENCES public.people(house_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.sheets
    ADD CONSTRAINT sheets_house_id_fkey FOREIGN KEY (house_id) REFERENCES public.houses(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.sign_in_tries
    ADD CONSTRAINT sign_in_tries_house_id_fkey FOREIGN KEY (house_id) REFERENCES public.houses(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.slips
    ADD CONSTRAINT slips_house_id_person_id_fkey FOREIGN KEY (house_id, person_id) REFERENCES public.people(house_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.stewards
    ADD CONSTRAINT stewards_house_id_catalog_id_fkey FOREIGN KEY (house_id, catalog_id) REFERENCES public.catalogs(house_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.stewards
    ADD CONSTRAINT stewards_house_id_person_id_fkey FOREIGN KEY (house_id, person_id) REFERENCES public.people(house_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.value_counts
    ADD CONSTRAINT value_counts_house_id_field_id_fkey FOREIGN KEY (house_id, field_id) REFERENCES public.fields(house_id, id) ON DELETE CASCADE;
