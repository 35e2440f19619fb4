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
    catalog_id uuid,
    grouped text DEFAULT ''::text NOT NULL
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
    password_hash text NOT NULL,
    out_since timestamp with time zone
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
    expires_at timestamp with time zone NOT NULL,
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    begun_at timestamp with time zone DEFAULT now() NOT NULL,
    begun_from text DEFAULT ''::text NOT NULL
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
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 1, '004853b0-fedc-47a3-8810-ce3a59e7c9d2', '2026-11-29 14:19:29.044225+00', '["3527dc41-a721-42e6-9c08-3b2e631016c8"]', '{"steps": [{"act": {"act": "insert", "before": null, "entries": [{"id": "6a59f312-c64b-4998-bf35-776e8b3ec407", "cells": {"value": "Corin Vale"}}]}, "what": "act", "registerId": "3527dc41-a721-42e6-9c08-3b2e631016c8"}], "meanings": []}', '[{"act": {"act": "delete", "entries": ["6a59f312-c64b-4998-bf35-776e8b3ec407"]}, "what": "act", "registerId": "3527dc41-a721-42e6-9c08-3b2e631016c8"}]', 'done');
INSERT INTO public.catalog_changes OVERRIDING SYSTEM VALUE VALUES
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 1, '0249224a-bdc8-4d6a-8cce-31f8ae0b6d4b', '2026-11-29 14:19:29.044225+00', '004853b0-fedc-47a3-8810-ce3a59e7c9d2', 1, 2, '[{"after": {"from": [], "path": [], "label": "Corin Vale", "state": "offered", "value": "Corin Vale", "otherNames": []}, "before": null}]', NULL, NULL);
INSERT INTO public.catalogs VALUES
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', '0249224a-bdc8-4d6a-8cce-31f8ae0b6d4b', 'pilots', 'Pilots', '', 2, '{"order": {"by": "kept"}, "parts": [{"join": "or", "kind": "range", "label": null, "rangeId": "7bd952ea-d4df-4346-8f9a-798a3bd32269", "companions": []}], "filter": null, "distinct": "value"}');
INSERT INTO public.changes VALUES
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 1, 'administrators', '{"kind": "people"}', '2026-11-29 14:19:28.893648+00'),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 2, 'everyone', '{"by": "004853b0-fedc-47a3-8810-ce3a59e7c9d2", "kind": "cells", "cells": {"pilot": "Rook Tansy"}, "entryId": "9da69199-dbc1-4ef2-a026-a492e9d4a1dd", "version": 2, "registerId": "e5b5534c-cbcf-4485-8a81-9063c0eadeaa"}', '2026-11-29 14:19:28.976617+00'),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 3, 'everyone', '{"by": "004853b0-fedc-47a3-8810-ce3a59e7c9d2", "kind": "cells", "cells": {"fee": "12.5"}, "entryId": "9da69199-dbc1-4ef2-a026-a492e9d4a1dd", "version": 3, "registerId": "e5b5534c-cbcf-4485-8a81-9063c0eadeaa"}', '2026-11-29 14:19:29.009158+00'),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 4, 'everyone', '{"kind": "register", "registerId": "e5b5534c-cbcf-4485-8a81-9063c0eadeaa"}', '2026-11-29 14:19:29.026495+00'),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 5, 'everyone', '{"kind": "build", "version": 2}', '2026-11-29 14:19:29.044225+00'),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 6, 'administrators', '{"kind": "register", "registerId": "3527dc41-a721-42e6-9c08-3b2e631016c8"}', '2026-11-29 14:19:29.044225+00'),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 7, 'everyone', '{"kind": "catalog", "version": 2, "catalogId": "0249224a-bdc8-4d6a-8cce-31f8ae0b6d4b"}', '2026-11-29 14:19:29.044225+00');
INSERT INTO public.chunks VALUES
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', '6810d4b5-b422-4648-a8a6-e47a598041b2', -4611686018427387904, 2),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 'e5b5534c-cbcf-4485-8a81-9063c0eadeaa', -4611686018427387904, 2),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', '3527dc41-a721-42e6-9c08-3b2e631016c8', -4611686018427387904, 4);
INSERT INTO public.entries VALUES
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', '3527dc41-a721-42e6-9c08-3b2e631016c8', 'e48c09fc-f45f-47da-b7df-a51e7c4e1a0f', 4294967296, 1, '{"value": "Tam Ossel"}'),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', '3527dc41-a721-42e6-9c08-3b2e631016c8', 'd952bc3d-1a98-4b8c-8ef1-dd32ff28ec7a', 8589934592, 1, '{"value": "Bryn Calloway"}'),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', '3527dc41-a721-42e6-9c08-3b2e631016c8', '6fe7193d-11e1-4299-95dd-49eaea40f392', 12884901888, 1, '{"value": "Rook Tansy"}'),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', '6810d4b5-b422-4648-a8a6-e47a598041b2', 'd6a43468-d5c7-4fbc-ac78-1201fdbbafda', 4294967296, 1, '{"value": "North"}'),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', '6810d4b5-b422-4648-a8a6-e47a598041b2', 'cce6ffa5-7893-4320-a4e1-29da72b6a873', 8589934592, 1, '{"value": "South"}'),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 'e5b5534c-cbcf-4485-8a81-9063c0eadeaa', 'e71076ee-7ddd-446e-b783-05c83d1cc65d', 8589934592, 1, '{"pilot": "Tam", "visit": "V2"}'),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 'e5b5534c-cbcf-4485-8a81-9063c0eadeaa', '9da69199-dbc1-4ef2-a026-a492e9d4a1dd', 4294967296, 3, '{"fee": "12.5", "pilot": "Rook Tansy", "visit": "V1", "arrival": "2026-11-24"}'),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', '3527dc41-a721-42e6-9c08-3b2e631016c8', '6a59f312-c64b-4998-bf35-776e8b3ec407', 17179869184, 1, '{"value": "Corin Vale"}');
INSERT INTO public.fields VALUES
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 'f8db836d-a68c-45ab-9f54-9bfd3e2c4683', '3527dc41-a721-42e6-9c08-3b2e631016c8', 'value', 'Pilots', 'text', 160, 3, NULL, NULL, ''),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', '9ca5c9f3-dc0f-4e5b-bc94-8a4b03138442', '6810d4b5-b422-4648-a8a6-e47a598041b2', 'value', 'Quays', 'text', 160, 5, NULL, NULL, ''),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 'f21ebf24-ca26-4559-985e-8fe3a7c2eca1', 'e5b5534c-cbcf-4485-8a81-9063c0eadeaa', 'visit', 'Visit', 'text', 90, 8, NULL, NULL, ''),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 'd55a02f9-da84-444d-b8fa-e3f5e63db357', 'e5b5534c-cbcf-4485-8a81-9063c0eadeaa', 'arrival', 'Arrival', 'date', 100, 10, NULL, NULL, ''),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', '1a21d867-a2fb-4456-84a3-0f53d175e6ae', 'e5b5534c-cbcf-4485-8a81-9063c0eadeaa', 'fee', 'Fee', 'amount', 100, 11, NULL, NULL, ''),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 'ff7e5c19-2855-4b62-8ab4-a44a18bce211', 'e5b5534c-cbcf-4485-8a81-9063c0eadeaa', 'pilot', 'Pilot', 'text', 120, 9, '{"day": null, "hint": "Who?", "kind": "catalog", "level": null, "where": null, "begins": {"with": "empty", "value": ""}, "brings": [], "misfit": "clear", "others": "refuse", "fitting": [], "parents": [], "picking": {"list": true, "most": null, "lines": 8, "search": "anywhere"}, "catalogId": "0249224a-bdc8-4d6a-8cce-31f8ae0b6d4b", "noRepeats": false, "mayBeBlank": true, "blankParent": "nothing", "fillsSingle": false, "refusalText": ""}', '0249224a-bdc8-4d6a-8cce-31f8ae0b6d4b', '');
INSERT INTO public.house_counters VALUES
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 7);
INSERT INTO public.houses VALUES
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 'old', 'Old House', '{"currency": "EUR", "language": "en-GB", "dateOrder": "dmy", "yearPivot": 68, "decimalMark": "."}', false, 2);
INSERT INTO public.instance VALUES
	('6f728b54');
INSERT INTO public.kysely_migration VALUES
	('0001-first-thread', '2026-11-29T14:19:28.304Z'),
	('0002-write-cell', '2026-11-29T14:19:28.307Z'),
	('0003-sources-in-full', '2026-11-29T14:19:28.328Z'),
	('0004-rules-in-full', '2026-11-29T14:19:28.330Z'),
	('0005-the-sheet-in-full', '2026-11-29T14:19:28.359Z'),
	('0006-taking-lists-back', '2026-11-29T14:19:28.362Z'),
	('0007-forms', '2026-11-29T14:19:28.375Z'),
	('0008-figures', '2026-11-29T14:19:28.379Z'),
	('0009-house-and-people', '2026-11-29T14:19:28.383Z');
INSERT INTO public.kysely_migration_lock VALUES
	('migration_lock', 0);
INSERT INTO public.ledger OVERRIDING SYSTEM VALUE VALUES
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 1, '2026-11-29 14:19:28.976617+00', '004853b0-fedc-47a3-8810-ce3a59e7c9d2', 'cell.written', 'e5b5534c-cbcf-4485-8a81-9063c0eadeaa', '9da69199-dbc1-4ef2-a026-a492e9d4a1dd', 'pilot', 2, 'Tam Ossel', 'Rook Tansy', NULL, NULL),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 2, '2026-11-29 14:19:29.009158+00', '004853b0-fedc-47a3-8810-ce3a59e7c9d2', 'cell.written', 'e5b5534c-cbcf-4485-8a81-9063c0eadeaa', '9da69199-dbc1-4ef2-a026-a492e9d4a1dd', 'fee', 3, NULL, '12.5', NULL, NULL),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 3, '2026-11-29 14:19:29.026495+00', '004853b0-fedc-47a3-8810-ce3a59e7c9d2', 'entry.deleted', 'e5b5534c-cbcf-4485-8a81-9063c0eadeaa', '50fdb2d0-ab1d-401c-9304-3eaf842ffcb6', NULL, NULL, '12884901888', NULL, '{"visit": "V3"}', NULL),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 4, '2026-11-29 14:19:29.044225+00', '004853b0-fedc-47a3-8810-ce3a59e7c9d2', 'entry.inserted', '3527dc41-a721-42e6-9c08-3b2e631016c8', '6a59f312-c64b-4998-bf35-776e8b3ec407', NULL, NULL, NULL, NULL, '{"value": "Corin Vale"}', NULL),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 5, '2026-11-29 14:19:29.044225+00', '004853b0-fedc-47a3-8810-ce3a59e7c9d2', 'item.added', NULL, NULL, NULL, NULL, NULL, 'Corin Vale', '{"catalogId": "0249224a-bdc8-4d6a-8cce-31f8ae0b6d4b"}', NULL);
INSERT INTO public.people VALUES
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', '004853b0-fedc-47a3-8810-ce3a59e7c9d2', 'The administrator', 'administrator', 'administrator', 'administrator', '$argon2id$v=19$m=19456,t=2,p=1$091VF/lP2D43lqqf/Mr67g$WcAzggGDgUcbccyKxQSdA9WJb29LNSGkZflWZ4mDMKs', NULL),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 'cd7a73ec-e1af-49c9-9d57-0bd033d7d6b4', 'The clerk', 'clerk', 'clerk', 'clerk', '$argon2id$v=19$m=19456,t=2,p=1$091VF/lP2D43lqqf/Mr67g$WcAzggGDgUcbccyKxQSdA9WJb29LNSGkZflWZ4mDMKs', NULL),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', '843511fa-3173-4761-baeb-c833950b1e74', 'The reader', 'reader', 'reader', 'reader', '$argon2id$v=19$m=19456,t=2,p=1$091VF/lP2D43lqqf/Mr67g$WcAzggGDgUcbccyKxQSdA9WJb29LNSGkZflWZ4mDMKs', NULL);
INSERT INTO public.range_stretches VALUES
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', '7bd952ea-d4df-4346-8f9a-798a3bd32269', 0, '3527dc41-a721-42e6-9c08-3b2e631016c8', '["value"]', '{"at": "top"}', '{"ends": "last"}');
INSERT INTO public.ranges VALUES
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', '7bd952ea-d4df-4346-8f9a-798a3bd32269', 'Pilots', 'pilots', 'list', false);
INSERT INTO public.registers VALUES
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', '6810d4b5-b422-4648-a8a6-e47a598041b2', '46a2c32b-63ce-4e99-bdaa-23b76e9e0c6e', 'Quays', 4, 1),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 'e5b5534c-cbcf-4485-8a81-9063c0eadeaa', 'bbb4aeeb-514e-4fc4-b080-839a815019c5', 'Visits', 7, 2),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', '3527dc41-a721-42e6-9c08-3b2e631016c8', '46a2c32b-63ce-4e99-bdaa-23b76e9e0c6e', 'Pilots', 2, 2);
INSERT INTO public.sessions VALUES
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', '\x403db71c8918b6855a1790e4a80980201e7b118dddf0c92310784d67429ac2a6', '004853b0-fedc-47a3-8810-ce3a59e7c9d2', '2026-11-29 14:19:28.893648+00', '2026-12-13 14:19:28.895+00', 'e8a369b7-d4c7-401f-aa54-fc0b562fb2ad', '2026-11-29 14:19:28.893648+00', 'node, 127.0.0.1');
INSERT INTO public.sheets VALUES
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', '46a2c32b-63ce-4e99-bdaa-23b76e9e0c6e', 'source', 'Lists', '', 1, false),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 'bbb4aeeb-514e-4fc4-b080-839a815019c5', 'entry', 'Visits', '', 6, false);
INSERT INTO public.value_counts VALUES
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 'f8db836d-a68c-45ab-9f54-9bfd3e2c4683', 'Bryn Calloway', 1),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 'f8db836d-a68c-45ab-9f54-9bfd3e2c4683', 'Rook Tansy', 1),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 'f8db836d-a68c-45ab-9f54-9bfd3e2c4683', 'Tam Ossel', 1),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', '9ca5c9f3-dc0f-4e5b-bc94-8a4b03138442', 'North', 1),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', '9ca5c9f3-dc0f-4e5b-bc94-8a4b03138442', 'South', 1),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 'd55a02f9-da84-444d-b8fa-e3f5e63db357', '2026-11-24', 1),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 'f21ebf24-ca26-4559-985e-8fe3a7c2eca1', 'V1', 1),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 'f21ebf24-ca26-4559-985e-8fe3a7c2eca1', 'V2', 1),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 'f21ebf24-ca26-4559-985e-8fe3a7c2eca1', 'V3', 1),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 'ff7e5c19-2855-4b62-8ab4-a44a18bce211', 'Tam', 1),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 'ff7e5c19-2855-4b62-8ab4-a44a18bce211', 'Tam Ossel', 1);
INSERT INTO public.value_deltas OVERRIDING SYSTEM VALUE VALUES
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 1, 'ff7e5c19-2855-4b62-8ab4-a44a18bce211', 'Tam Ossel', -1),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 2, 'ff7e5c19-2855-4b62-8ab4-a44a18bce211', 'Rook Tansy', 1),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 3, '1a21d867-a2fb-4456-84a3-0f53d175e6ae', '12.5', 1),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 4, 'f21ebf24-ca26-4559-985e-8fe3a7c2eca1', 'V3', -1),
	('9cce197e-0594-4c6d-ba05-a91e0dadd121', 5, 'f8db836d-a68c-45ab-9f54-9bfd3e2c4683', 'Corin Vale', 1);
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
