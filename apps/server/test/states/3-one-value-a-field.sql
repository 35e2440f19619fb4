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
    person_id uuid NOT NULL,
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
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', 1, '24cad509-4b4c-40fb-a62d-0ecfbf5beeca', '2026-11-29 14:19:18.443356+00', '["d143d1be-0ad8-4456-a462-cafc7fb99a23"]', '{"steps": [{"act": {"act": "insert", "before": null, "entries": [{"id": "8d0a8e3b-fb38-48a3-b579-30b9b49c27e0", "cells": {"value": "Corin Vale"}}]}, "what": "act", "registerId": "d143d1be-0ad8-4456-a462-cafc7fb99a23"}], "meanings": []}', '[{"act": {"act": "delete", "entries": ["8d0a8e3b-fb38-48a3-b579-30b9b49c27e0"]}, "what": "act", "registerId": "d143d1be-0ad8-4456-a462-cafc7fb99a23"}]', 'done');
INSERT INTO public.catalog_changes OVERRIDING SYSTEM VALUE VALUES
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', 1, '48c4a906-b51d-4a30-95ee-51ebf42a5744', '2026-11-29 14:19:18.443356+00', '24cad509-4b4c-40fb-a62d-0ecfbf5beeca', 1, 2, '[{"after": {"from": [], "path": [], "label": "Corin Vale", "state": "offered", "value": "Corin Vale", "otherNames": []}, "before": null}]', NULL, NULL);
INSERT INTO public.catalogs VALUES
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', '48c4a906-b51d-4a30-95ee-51ebf42a5744', 'pilots', 'Pilots', '', 2, '{"order": {"by": "kept"}, "parts": [{"join": "or", "kind": "range", "label": null, "rangeId": "6ef977d4-53be-4f47-83e9-2e04b74f50c3", "companions": []}], "filter": null, "distinct": "value"}');
INSERT INTO public.changes VALUES
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', 1, 'administrators', '{"kind": "people"}', '2026-11-29 14:19:18.342956+00'),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', 2, 'everyone', '{"by": "24cad509-4b4c-40fb-a62d-0ecfbf5beeca", "kind": "cells", "cells": {"pilot": "Rook Tansy"}, "entryId": "66b5c7be-9d51-425b-9f87-5b4b8dedd45b", "version": 2, "registerId": "0b645a00-adf6-4f35-9813-4d458c5911c3"}', '2026-11-29 14:19:18.420983+00'),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', 3, 'everyone', '{"kind": "register", "registerId": "0b645a00-adf6-4f35-9813-4d458c5911c3"}', '2026-11-29 14:19:18.430586+00'),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', 4, 'everyone', '{"kind": "build", "version": 2}', '2026-11-29 14:19:18.443356+00'),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', 5, 'administrators', '{"kind": "register", "registerId": "d143d1be-0ad8-4456-a462-cafc7fb99a23"}', '2026-11-29 14:19:18.443356+00'),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', 6, 'everyone', '{"kind": "catalog", "version": 2, "catalogId": "48c4a906-b51d-4a30-95ee-51ebf42a5744"}', '2026-11-29 14:19:18.443356+00');
INSERT INTO public.chunks VALUES
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', 'b87a38a4-49af-4bc0-9d9d-652431e45c3c', -4611686018427387904, 2),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', '0b645a00-adf6-4f35-9813-4d458c5911c3', -4611686018427387904, 2),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', 'd143d1be-0ad8-4456-a462-cafc7fb99a23', -4611686018427387904, 4);
INSERT INTO public.entries VALUES
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', 'd143d1be-0ad8-4456-a462-cafc7fb99a23', 'cbbced50-7eee-4d4c-8745-b45ed0378267', 4294967296, 1, '{"value": "Tam Ossel"}'),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', 'd143d1be-0ad8-4456-a462-cafc7fb99a23', '0fa9d1c8-5a8b-4435-8859-17e72866ee92', 8589934592, 1, '{"value": "Bryn Calloway"}'),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', 'd143d1be-0ad8-4456-a462-cafc7fb99a23', '4927bc60-bb72-47f6-8831-533a139d69b9', 12884901888, 1, '{"value": "Rook Tansy"}'),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', 'b87a38a4-49af-4bc0-9d9d-652431e45c3c', 'c2fda0ee-ee05-41e2-acd5-c808239c038f', 4294967296, 1, '{"value": "North"}'),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', 'b87a38a4-49af-4bc0-9d9d-652431e45c3c', 'c440aabf-1f95-425e-a8ad-c7aeb13f469e', 8589934592, 1, '{"value": "South"}'),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', '0b645a00-adf6-4f35-9813-4d458c5911c3', '45f7ab65-dd9f-445e-9d67-6257b13c86c9', 8589934592, 1, '{"pilot": "Tam", "visit": "V2"}'),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', '0b645a00-adf6-4f35-9813-4d458c5911c3', '66b5c7be-9d51-425b-9f87-5b4b8dedd45b', 4294967296, 2, '{"pilot": "Rook Tansy", "visit": "V1", "arrival": "2026-11-24"}'),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', 'd143d1be-0ad8-4456-a462-cafc7fb99a23', '8d0a8e3b-fb38-48a3-b579-30b9b49c27e0', 17179869184, 1, '{"value": "Corin Vale"}');
INSERT INTO public.fields VALUES
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', '7585022f-6128-43ed-a7f5-f7411131583e', 'd143d1be-0ad8-4456-a462-cafc7fb99a23', 'value', 'Pilots', 'text', 160, 3, NULL, NULL),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', '579491a4-89aa-4fee-8072-3c1f0dd05321', 'b87a38a4-49af-4bc0-9d9d-652431e45c3c', 'value', 'Quays', 'text', 160, 5, NULL, NULL),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', 'ab46aa40-db2e-4734-a409-a60b3b9a4373', '0b645a00-adf6-4f35-9813-4d458c5911c3', 'visit', 'Visit', 'text', 90, 8, NULL, NULL),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', '27cb22af-c9af-4e6f-9bbd-fc2d3f3b1f86', '0b645a00-adf6-4f35-9813-4d458c5911c3', 'arrival', 'Arrival', 'date', 100, 10, NULL, NULL),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', '175108e2-0261-478b-af7a-8c33b548e5e9', '0b645a00-adf6-4f35-9813-4d458c5911c3', 'pilot', 'Pilot', 'text', 120, 9, '{"day": null, "hint": "Who?", "kind": "catalog", "level": null, "where": null, "begins": {"with": "empty", "value": ""}, "brings": [], "misfit": "clear", "others": "refuse", "fitting": [], "parents": [], "picking": {"list": true, "lines": 8, "search": "anywhere"}, "catalogId": "48c4a906-b51d-4a30-95ee-51ebf42a5744", "noRepeats": false, "mayBeBlank": true, "blankParent": "nothing", "fillsSingle": false, "refusalText": ""}', '48c4a906-b51d-4a30-95ee-51ebf42a5744');
INSERT INTO public.house_counters VALUES
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', 6);
INSERT INTO public.houses VALUES
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', 'old', 'Old House', '{"language": "en-GB", "dateOrder": "dmy", "yearPivot": 68, "decimalMark": "."}', false, 2);
INSERT INTO public.instance VALUES
	('a7ef92f2');
INSERT INTO public.kysely_migration VALUES
	('0001-first-thread', '2026-11-29T14:19:17.798Z'),
	('0002-write-cell', '2026-11-29T14:19:17.801Z'),
	('0003-sources-in-full', '2026-11-29T14:19:17.822Z'),
	('0004-rules-in-full', '2026-11-29T14:19:17.824Z'),
	('0005-the-sheet-in-full', '2026-11-29T14:19:17.847Z');
INSERT INTO public.kysely_migration_lock VALUES
	('migration_lock', 0);
INSERT INTO public.ledger OVERRIDING SYSTEM VALUE VALUES
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', 1, '2026-11-29 14:19:18.420983+00', '24cad509-4b4c-40fb-a62d-0ecfbf5beeca', 'cell.written', '0b645a00-adf6-4f35-9813-4d458c5911c3', '66b5c7be-9d51-425b-9f87-5b4b8dedd45b', 'pilot', 2, 'Tam Ossel', 'Rook Tansy', NULL, NULL),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', 2, '2026-11-29 14:19:18.430586+00', '24cad509-4b4c-40fb-a62d-0ecfbf5beeca', 'entry.deleted', '0b645a00-adf6-4f35-9813-4d458c5911c3', 'd574aa1a-a599-4d6b-990f-4ebd3771a765', NULL, NULL, '12884901888', NULL, '{"visit": "V3"}', NULL),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', 3, '2026-11-29 14:19:18.443356+00', '24cad509-4b4c-40fb-a62d-0ecfbf5beeca', 'entry.inserted', 'd143d1be-0ad8-4456-a462-cafc7fb99a23', '8d0a8e3b-fb38-48a3-b579-30b9b49c27e0', NULL, NULL, NULL, NULL, '{"value": "Corin Vale"}', NULL),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', 4, '2026-11-29 14:19:18.443356+00', '24cad509-4b4c-40fb-a62d-0ecfbf5beeca', 'item.added', NULL, NULL, NULL, NULL, NULL, 'Corin Vale', '{"catalogId": "48c4a906-b51d-4a30-95ee-51ebf42a5744"}', NULL);
INSERT INTO public.people VALUES
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', '24cad509-4b4c-40fb-a62d-0ecfbf5beeca', 'The administrator', 'administrator', 'administrator', 'administrator', '$argon2id$v=19$m=19456,t=2,p=1$d8UoxQIGFp2MeGxh3qNRPw$nGT5CRMvW/Ora6B8uOcQUPr7IgxGQWwBq7uynE+N6FI'),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', '14919381-6ef5-455d-8bf7-053865e68ece', 'The clerk', 'clerk', 'clerk', 'clerk', '$argon2id$v=19$m=19456,t=2,p=1$3pxjbibt5ReGCPb0IfasOQ$sULtZKUWrmIXdeWNpqD4hTKPey7x0LT5j8g5MWNQ/g8'),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', '25856244-62d7-4f20-a337-68f546a7bb31', 'The reader', 'reader', 'reader', 'reader', '$argon2id$v=19$m=19456,t=2,p=1$cu9BuTkS53UyjN36tTZU/w$rtPulDqsg2GR+L0QwWhdLTcnXlMqdayFrfldu1IAijI');
INSERT INTO public.range_stretches VALUES
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', '6ef977d4-53be-4f47-83e9-2e04b74f50c3', 0, 'd143d1be-0ad8-4456-a462-cafc7fb99a23', '["value"]', '{"at": "top"}', '{"ends": "last"}');
INSERT INTO public.ranges VALUES
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', '6ef977d4-53be-4f47-83e9-2e04b74f50c3', 'Pilots', 'pilots', 'list', false);
INSERT INTO public.registers VALUES
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', 'b87a38a4-49af-4bc0-9d9d-652431e45c3c', 'f4d2c21f-09f9-4c52-95e3-75eabb454e5f', 'Quays', 4, 1),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', '0b645a00-adf6-4f35-9813-4d458c5911c3', '111858eb-93a4-44f6-9732-0cf690483c61', 'Visits', 7, 2),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', 'd143d1be-0ad8-4456-a462-cafc7fb99a23', 'f4d2c21f-09f9-4c52-95e3-75eabb454e5f', 'Pilots', 2, 2);
INSERT INTO public.sessions VALUES
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', '\x7a5eead0b5ab73096bb07f5ece27ef671bf013c53bf177176919de7d71a79ede', '24cad509-4b4c-40fb-a62d-0ecfbf5beeca', '2026-11-29 14:19:18.342956+00', '2026-12-13 14:19:18.344+00');
INSERT INTO public.sheets VALUES
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', 'f4d2c21f-09f9-4c52-95e3-75eabb454e5f', 'source', 'Lists', '', 1, false),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', '111858eb-93a4-44f6-9732-0cf690483c61', 'entry', 'Visits', '', 6, false);
INSERT INTO public.value_counts VALUES
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', '7585022f-6128-43ed-a7f5-f7411131583e', 'Bryn Calloway', 1),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', '7585022f-6128-43ed-a7f5-f7411131583e', 'Rook Tansy', 1),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', '7585022f-6128-43ed-a7f5-f7411131583e', 'Tam Ossel', 1),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', '579491a4-89aa-4fee-8072-3c1f0dd05321', 'North', 1),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', '579491a4-89aa-4fee-8072-3c1f0dd05321', 'South', 1),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', '175108e2-0261-478b-af7a-8c33b548e5e9', 'Tam', 1),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', '175108e2-0261-478b-af7a-8c33b548e5e9', 'Tam Ossel', 1),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', '27cb22af-c9af-4e6f-9bbd-fc2d3f3b1f86', '2026-11-24', 1),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', 'ab46aa40-db2e-4734-a409-a60b3b9a4373', 'V1', 1),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', 'ab46aa40-db2e-4734-a409-a60b3b9a4373', 'V2', 1),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', 'ab46aa40-db2e-4734-a409-a60b3b9a4373', 'V3', 1);
INSERT INTO public.value_deltas OVERRIDING SYSTEM VALUE VALUES
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', 1, '175108e2-0261-478b-af7a-8c33b548e5e9', 'Tam Ossel', -1),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', 2, '175108e2-0261-478b-af7a-8c33b548e5e9', 'Rook Tansy', 1),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', 3, 'ab46aa40-db2e-4734-a409-a60b3b9a4373', 'V3', -1),
	('eed8aac1-298a-4f02-bf90-2f9e0063def3', 4, '7585022f-6128-43ed-a7f5-f7411131583e', 'Corin Vale', 1);
SELECT pg_catalog.setval('public.acts_id_seq', 1, true);
SELECT pg_catalog.setval('public.catalog_changes_id_seq', 1, true);
SELECT pg_catalog.setval('public.entry_acts_id_seq', 1, false);
SELECT pg_catalog.setval('public.ledger_id_seq', 4, true);
SELECT pg_catalog.setval('public.sign_in_tries_id_seq', 1, false);
SELECT pg_catalog.setval('public.value_deltas_id_seq', 4, true);
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
CREATE INDEX ledger_act ON public.ledger USING btree (house_id, act_id, id) WHERE (act_id IS NOT NULL);
CREATE INDEX ledger_entry ON public.ledger USING btree (house_id, entry_id, field_key) WHERE (entry_id IS NOT NULL);
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
