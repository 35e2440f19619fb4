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
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', 1, '5cc3ab24-5bfd-4169-b36d-338f1af3a38c', '2026-11-29 14:19:21.65379+00', '["76f0c28c-0ff9-4e25-a2dc-48aa73fd1b1e"]', '{"steps": [{"act": {"act": "insert", "before": null, "entries": [{"id": "6066a3e9-591c-4292-930b-0569ec5434e0", "cells": {"value": "Corin Vale"}}]}, "what": "act", "registerId": "76f0c28c-0ff9-4e25-a2dc-48aa73fd1b1e"}], "meanings": []}', '[{"act": {"act": "delete", "entries": ["6066a3e9-591c-4292-930b-0569ec5434e0"]}, "what": "act", "registerId": "76f0c28c-0ff9-4e25-a2dc-48aa73fd1b1e"}]', 'done');
INSERT INTO public.catalog_changes OVERRIDING SYSTEM VALUE VALUES
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', 1, '238b12c7-6736-4549-a658-aeaef7994f61', '2026-11-29 14:19:21.65379+00', '5cc3ab24-5bfd-4169-b36d-338f1af3a38c', 1, 2, '[{"after": {"from": [], "path": [], "label": "Corin Vale", "state": "offered", "value": "Corin Vale", "otherNames": []}, "before": null}]', NULL, NULL);
INSERT INTO public.catalogs VALUES
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', '238b12c7-6736-4549-a658-aeaef7994f61', 'pilots', 'Pilots', '', 2, '{"order": {"by": "kept"}, "parts": [{"join": "or", "kind": "range", "label": null, "rangeId": "35ce1b5e-d53e-4252-9521-9065a8d2c2b9", "companions": []}], "filter": null, "distinct": "value"}');
INSERT INTO public.changes VALUES
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', 1, 'administrators', '{"kind": "people"}', '2026-11-29 14:19:21.539203+00'),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', 2, 'everyone', '{"by": "5cc3ab24-5bfd-4169-b36d-338f1af3a38c", "kind": "cells", "cells": {"pilot": "Rook Tansy"}, "entryId": "495de0c2-40c9-4240-a075-0bb94cd28d6d", "version": 2, "registerId": "28897b6f-afdd-4e92-99f9-67f1e3201715"}', '2026-11-29 14:19:21.624795+00'),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', 3, 'everyone', '{"kind": "register", "registerId": "28897b6f-afdd-4e92-99f9-67f1e3201715"}', '2026-11-29 14:19:21.637743+00'),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', 4, 'everyone', '{"kind": "build", "version": 2}', '2026-11-29 14:19:21.65379+00'),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', 5, 'administrators', '{"kind": "register", "registerId": "76f0c28c-0ff9-4e25-a2dc-48aa73fd1b1e"}', '2026-11-29 14:19:21.65379+00'),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', 6, 'everyone', '{"kind": "catalog", "version": 2, "catalogId": "238b12c7-6736-4549-a658-aeaef7994f61"}', '2026-11-29 14:19:21.65379+00');
INSERT INTO public.chunks VALUES
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', '63e0c8d3-a3a8-4f8a-9329-5d21462c1c30', -4611686018427387904, 2),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', '28897b6f-afdd-4e92-99f9-67f1e3201715', -4611686018427387904, 2),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', '76f0c28c-0ff9-4e25-a2dc-48aa73fd1b1e', -4611686018427387904, 4);
INSERT INTO public.entries VALUES
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', '76f0c28c-0ff9-4e25-a2dc-48aa73fd1b1e', '224be498-2565-47a7-a2fe-b7c9883fa77d', 4294967296, 1, '{"value": "Tam Ossel"}'),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', '76f0c28c-0ff9-4e25-a2dc-48aa73fd1b1e', 'ba383195-034f-4fbb-8281-6d1a1a0e4829', 8589934592, 1, '{"value": "Bryn Calloway"}'),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', '76f0c28c-0ff9-4e25-a2dc-48aa73fd1b1e', 'd2eb061d-4626-49be-a6f8-35218977af60', 12884901888, 1, '{"value": "Rook Tansy"}'),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', '63e0c8d3-a3a8-4f8a-9329-5d21462c1c30', '53abbfed-0c73-4de3-852e-82b00f3b3419', 4294967296, 1, '{"value": "North"}'),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', '63e0c8d3-a3a8-4f8a-9329-5d21462c1c30', 'f62bd977-dccf-4519-b695-53eb1c37f295', 8589934592, 1, '{"value": "South"}'),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', '28897b6f-afdd-4e92-99f9-67f1e3201715', '2d039b9b-37a5-4b6e-8884-9a328864e665', 8589934592, 1, '{"pilot": "Tam", "visit": "V2"}'),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', '28897b6f-afdd-4e92-99f9-67f1e3201715', '495de0c2-40c9-4240-a075-0bb94cd28d6d', 4294967296, 2, '{"pilot": "Rook Tansy", "visit": "V1", "arrival": "2026-11-24"}'),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', '76f0c28c-0ff9-4e25-a2dc-48aa73fd1b1e', '6066a3e9-591c-4292-930b-0569ec5434e0', 17179869184, 1, '{"value": "Corin Vale"}');
INSERT INTO public.fields VALUES
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', '1d6ff9f2-4fc3-4385-b525-ad36c211518c', '76f0c28c-0ff9-4e25-a2dc-48aa73fd1b1e', 'value', 'Pilots', 'text', 160, 3, NULL, NULL),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', 'ac851f80-cf4b-4623-b422-bb66d3dd7a57', '63e0c8d3-a3a8-4f8a-9329-5d21462c1c30', 'value', 'Quays', 'text', 160, 5, NULL, NULL),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', 'ccbea0c8-6e50-435a-ad20-14b3e68f1979', '28897b6f-afdd-4e92-99f9-67f1e3201715', 'visit', 'Visit', 'text', 90, 8, NULL, NULL),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', '4e3705b0-a335-4332-920b-1fff2b33db96', '28897b6f-afdd-4e92-99f9-67f1e3201715', 'arrival', 'Arrival', 'date', 100, 10, NULL, NULL),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', '5e170d96-f0ad-4102-a380-f68a3a92a979', '28897b6f-afdd-4e92-99f9-67f1e3201715', 'pilot', 'Pilot', 'text', 120, 9, '{"day": null, "hint": "Who?", "kind": "catalog", "level": null, "where": null, "begins": {"with": "empty", "value": ""}, "brings": [], "misfit": "clear", "others": "refuse", "fitting": [], "parents": [], "picking": {"list": true, "most": null, "lines": 8, "search": "anywhere"}, "catalogId": "238b12c7-6736-4549-a658-aeaef7994f61", "noRepeats": false, "mayBeBlank": true, "blankParent": "nothing", "fillsSingle": false, "refusalText": ""}', '238b12c7-6736-4549-a658-aeaef7994f61');
INSERT INTO public.house_counters VALUES
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', 6);
INSERT INTO public.houses VALUES
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', 'old', 'Old House', '{"language": "en-GB", "dateOrder": "dmy", "yearPivot": 68, "decimalMark": "."}', false, 2);
INSERT INTO public.instance VALUES
	('7cc62cd9');
INSERT INTO public.kysely_migration VALUES
	('0001-first-thread', '2026-11-29T14:19:21.023Z'),
	('0002-write-cell', '2026-11-29T14:19:21.025Z'),
	('0003-sources-in-full', '2026-11-29T14:19:21.044Z'),
	('0004-rules-in-full', '2026-11-29T14:19:21.045Z'),
	('0005-the-sheet-in-full', '2026-11-29T14:19:21.063Z'),
	('0006-taking-lists-back', '2026-11-29T14:19:21.065Z');
INSERT INTO public.kysely_migration_lock VALUES
	('migration_lock', 0);
INSERT INTO public.ledger OVERRIDING SYSTEM VALUE VALUES
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', 1, '2026-11-29 14:19:21.624795+00', '5cc3ab24-5bfd-4169-b36d-338f1af3a38c', 'cell.written', '28897b6f-afdd-4e92-99f9-67f1e3201715', '495de0c2-40c9-4240-a075-0bb94cd28d6d', 'pilot', 2, 'Tam Ossel', 'Rook Tansy', NULL, NULL),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', 2, '2026-11-29 14:19:21.637743+00', '5cc3ab24-5bfd-4169-b36d-338f1af3a38c', 'entry.deleted', '28897b6f-afdd-4e92-99f9-67f1e3201715', 'de9f4907-5a49-456d-823e-1986d49a35a6', NULL, NULL, '12884901888', NULL, '{"visit": "V3"}', NULL),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', 3, '2026-11-29 14:19:21.65379+00', '5cc3ab24-5bfd-4169-b36d-338f1af3a38c', 'entry.inserted', '76f0c28c-0ff9-4e25-a2dc-48aa73fd1b1e', '6066a3e9-591c-4292-930b-0569ec5434e0', NULL, NULL, NULL, NULL, '{"value": "Corin Vale"}', NULL),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', 4, '2026-11-29 14:19:21.65379+00', '5cc3ab24-5bfd-4169-b36d-338f1af3a38c', 'item.added', NULL, NULL, NULL, NULL, NULL, 'Corin Vale', '{"catalogId": "238b12c7-6736-4549-a658-aeaef7994f61"}', NULL);
INSERT INTO public.people VALUES
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', '5cc3ab24-5bfd-4169-b36d-338f1af3a38c', 'The administrator', 'administrator', 'administrator', 'administrator', '$argon2id$v=19$m=19456,t=2,p=1$8+ZkJvpqWs0YG8pKNexNgA$h0tQL1Pi/kBj21kb/NTKYsSaLy104iXXrEdvEPOuLT0'),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', 'a871124e-15b0-444a-97e8-bddc774ba106', 'The clerk', 'clerk', 'clerk', 'clerk', '$argon2id$v=19$m=19456,t=2,p=1$8+ZkJvpqWs0YG8pKNexNgA$h0tQL1Pi/kBj21kb/NTKYsSaLy104iXXrEdvEPOuLT0'),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', '40bc8625-7401-4112-8684-372d71f32c7c', 'The reader', 'reader', 'reader', 'reader', '$argon2id$v=19$m=19456,t=2,p=1$8+ZkJvpqWs0YG8pKNexNgA$h0tQL1Pi/kBj21kb/NTKYsSaLy104iXXrEdvEPOuLT0');
INSERT INTO public.range_stretches VALUES
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', '35ce1b5e-d53e-4252-9521-9065a8d2c2b9', 0, '76f0c28c-0ff9-4e25-a2dc-48aa73fd1b1e', '["value"]', '{"at": "top"}', '{"ends": "last"}');
INSERT INTO public.ranges VALUES
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', '35ce1b5e-d53e-4252-9521-9065a8d2c2b9', 'Pilots', 'pilots', 'list', false);
INSERT INTO public.registers VALUES
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', '63e0c8d3-a3a8-4f8a-9329-5d21462c1c30', 'b6bb3d0e-b5fe-4684-bb17-8ef335e04308', 'Quays', 4, 1),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', '28897b6f-afdd-4e92-99f9-67f1e3201715', 'ebbf9299-28c6-4a8a-84e6-2f60eee0c578', 'Visits', 7, 2),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', '76f0c28c-0ff9-4e25-a2dc-48aa73fd1b1e', 'b6bb3d0e-b5fe-4684-bb17-8ef335e04308', 'Pilots', 2, 2);
INSERT INTO public.sessions VALUES
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', '\xb278b0278f4852efdf1ddbc3c107b5b460f7f1aa056a85612e8e5777b8a8a823', '5cc3ab24-5bfd-4169-b36d-338f1af3a38c', '2026-11-29 14:19:21.539203+00', '2026-12-13 14:19:21.541+00');
INSERT INTO public.sheets VALUES
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', 'b6bb3d0e-b5fe-4684-bb17-8ef335e04308', 'source', 'Lists', '', 1, false),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', 'ebbf9299-28c6-4a8a-84e6-2f60eee0c578', 'entry', 'Visits', '', 6, false);
INSERT INTO public.value_counts VALUES
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', '1d6ff9f2-4fc3-4385-b525-ad36c211518c', 'Bryn Calloway', 1),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', '1d6ff9f2-4fc3-4385-b525-ad36c211518c', 'Rook Tansy', 1),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', '1d6ff9f2-4fc3-4385-b525-ad36c211518c', 'Tam Ossel', 1),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', 'ac851f80-cf4b-4623-b422-bb66d3dd7a57', 'North', 1),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', 'ac851f80-cf4b-4623-b422-bb66d3dd7a57', 'South', 1),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', '4e3705b0-a335-4332-920b-1fff2b33db96', '2026-11-24', 1),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', '5e170d96-f0ad-4102-a380-f68a3a92a979', 'Tam', 1),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', '5e170d96-f0ad-4102-a380-f68a3a92a979', 'Tam Ossel', 1),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', 'ccbea0c8-6e50-435a-ad20-14b3e68f1979', 'V1', 1),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', 'ccbea0c8-6e50-435a-ad20-14b3e68f1979', 'V2', 1),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', 'ccbea0c8-6e50-435a-ad20-14b3e68f1979', 'V3', 1);
INSERT INTO public.value_deltas OVERRIDING SYSTEM VALUE VALUES
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', 1, '5e170d96-f0ad-4102-a380-f68a3a92a979', 'Tam Ossel', -1),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', 2, '5e170d96-f0ad-4102-a380-f68a3a92a979', 'Rook Tansy', 1),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', 3, 'ccbea0c8-6e50-435a-ad20-14b3e68f1979', 'V3', -1),
	('bcd2909b-2534-4fbc-b602-de5d135e7d4a', 4, '1d6ff9f2-4fc3-4385-b525-ad36c211518c', 'Corin Vale', 1);
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
