SELECT pg_catalog.set_config('search_path', '', false);
CREATE COLLATION public.natural_order (provider = icu, locale = 'und-u-kn-true');
CREATE FUNCTION public.alike_key(value text) RETURNS text
    LANGUAGE sql IMMUTABLE PARALLEL SAFE
    AS $$
      select md5(regexp_replace(normalize(upper(lower(normalize(value, NFKC) collate "und-x-icu") collate "und-x-icu"), NFKC), '[\s\u0085\u00AD\u034F\u061C\u115F\u1160\u1680\u17B4\u17B5\u180B-\u180F\u200B-\u200F\u2028-\u202E\u205F-\u206F\u2800\u3000\u3164\uFE00-\uFE0F\uFEFF\uFFA0\U000E0000-\U000E0FFF]+', '', 'g'))
    $$;
CREATE FUNCTION public.ledger_begun() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
       begin
         perform pg_advisory_xact_lock_shared(hashtext('dellum.ledger'));
         return null;
       end $$;
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
CREATE FUNCTION public.ledger_row(l public.ledger) RETURNS text
    LANGUAGE sql STABLE
    AS $$
       select jsonb_build_array(l.id, extract(epoch from l.at)::text, l.person_id, l.act, l.register_id, l.entry_id, l.field_key,
         l.entry_version, l.from_value, l.to_value, l.detail, l.act_id)::text
     $$;
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
    act_id bigint,
    person_id uuid
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
    build bigint DEFAULT 1 NOT NULL,
    factor_roles text[] DEFAULT '{}'::text[] NOT NULL
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
CREATE TABLE public.known_browsers (
    house_id uuid NOT NULL,
    person_id uuid NOT NULL,
    token_hash bytea NOT NULL,
    at timestamp with time zone DEFAULT now() NOT NULL
);
CREATE TABLE public.kysely_migration (
    name character varying(255) NOT NULL,
    "timestamp" character varying(255) NOT NULL
);
CREATE TABLE public.kysely_migration_lock (
    id character varying(255) NOT NULL,
    is_locked integer DEFAULT 0 NOT NULL
);
ALTER TABLE public.ledger ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.ledger_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.ledger_seals (
    house_id uuid NOT NULL,
    ord integer NOT NULL,
    upto bigint NOT NULL,
    rows bigint NOT NULL,
    digest text NOT NULL,
    at timestamp with time zone DEFAULT now() NOT NULL
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
    out_since timestamp with time zone,
    factor_secret text,
    factor_pending text,
    factor_since timestamp with time zone,
    factor_step bigint
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
CREATE TABLE public.recovery_codes (
    house_id uuid NOT NULL,
    person_id uuid NOT NULL,
    code_hash bytea NOT NULL
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
    at timestamp with time zone DEFAULT now() NOT NULL,
    outside jsonb DEFAULT '[]'::jsonb NOT NULL
);
CREATE TABLE public.stewards (
    house_id uuid NOT NULL,
    catalog_id uuid NOT NULL,
    person_id uuid NOT NULL
);
CREATE TABLE public.told_apart (
    house_id uuid NOT NULL,
    id uuid NOT NULL,
    one text NOT NULL,
    other text NOT NULL
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
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 1, 'badb9878-556b-44a3-8e59-ce8c1c533e54', '2026-11-29 14:20:54.815797+00', '["852c6942-0d6b-4092-9bcd-0b02c2d75412"]', '{"steps": [{"act": {"act": "insert", "before": null, "entries": [{"id": "075edd61-e263-4945-8e8f-af3ea18094c1", "cells": {"value": "Corin Vale"}}]}, "what": "act", "registerId": "852c6942-0d6b-4092-9bcd-0b02c2d75412"}], "meanings": []}', '[{"act": {"act": "delete", "entries": ["075edd61-e263-4945-8e8f-af3ea18094c1"]}, "what": "act", "registerId": "852c6942-0d6b-4092-9bcd-0b02c2d75412"}]', 'done');
INSERT INTO public.catalog_changes OVERRIDING SYSTEM VALUE VALUES
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 1, '548bab42-95f2-4955-bde8-0491e7b2874b', '2026-11-29 14:20:54.815797+00', 'badb9878-556b-44a3-8e59-ce8c1c533e54', 1, 2, '[{"after": {"from": [], "path": [], "label": "Corin Vale", "state": "offered", "value": "Corin Vale", "otherNames": []}, "before": null}]', NULL, NULL);
INSERT INTO public.catalogs VALUES
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', '548bab42-95f2-4955-bde8-0491e7b2874b', 'pilots', 'Pilots', '', 2, '{"order": {"by": "kept"}, "parts": [{"join": "or", "kind": "range", "label": null, "rangeId": "35fb080c-c0a0-4b7b-a912-c94b05884165", "companions": []}], "filter": null, "distinct": "value"}');
INSERT INTO public.changes VALUES
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 1, 'administrators', '{"kind": "people"}', '2026-11-29 14:20:54.66799+00'),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 2, 'everyone', '{"by": "badb9878-556b-44a3-8e59-ce8c1c533e54", "kind": "cells", "cells": {"pilot": "Rook Tansy"}, "entryId": "7fa4893f-0570-4657-a434-3706192f518c", "version": 2, "registerId": "d98acbe2-05e9-47c4-b5a6-520c2843afc9"}', '2026-11-29 14:20:54.767239+00'),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 3, 'everyone', '{"by": "badb9878-556b-44a3-8e59-ce8c1c533e54", "kind": "cells", "cells": {"fee": "12.5"}, "entryId": "7fa4893f-0570-4657-a434-3706192f518c", "version": 3, "registerId": "d98acbe2-05e9-47c4-b5a6-520c2843afc9"}', '2026-11-29 14:20:54.786449+00'),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 4, 'everyone', '{"kind": "register", "registerId": "d98acbe2-05e9-47c4-b5a6-520c2843afc9"}', '2026-11-29 14:20:54.796837+00'),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 5, 'everyone', '{"kind": "build", "version": 2}', '2026-11-29 14:20:54.815797+00'),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 6, 'administrators', '{"kind": "register", "registerId": "852c6942-0d6b-4092-9bcd-0b02c2d75412"}', '2026-11-29 14:20:54.815797+00'),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 7, 'everyone', '{"kind": "catalog", "version": 2, "catalogId": "548bab42-95f2-4955-bde8-0491e7b2874b"}', '2026-11-29 14:20:54.815797+00');
INSERT INTO public.chunks VALUES
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', '69667ea7-1f98-458e-88dc-44722dcacf5f', -4611686018427387904, 2),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 'd98acbe2-05e9-47c4-b5a6-520c2843afc9', -4611686018427387904, 2),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', '852c6942-0d6b-4092-9bcd-0b02c2d75412', -4611686018427387904, 4);
INSERT INTO public.entries VALUES
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', '852c6942-0d6b-4092-9bcd-0b02c2d75412', '727e930c-789e-4617-9a85-b74d08af4c72', 4294967296, 1, '{"value": "Tam Ossel"}'),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', '852c6942-0d6b-4092-9bcd-0b02c2d75412', '4b843a72-2a44-4e72-973e-2f6f9ca5136e', 8589934592, 1, '{"value": "Bryn Calloway"}'),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', '852c6942-0d6b-4092-9bcd-0b02c2d75412', '46da6b55-df45-4bb7-b882-99ea49044bc6', 12884901888, 1, '{"value": "Rook Tansy"}'),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', '69667ea7-1f98-458e-88dc-44722dcacf5f', '637d09fd-c8f7-4dae-bbf4-191630ccd224', 4294967296, 1, '{"value": "North"}'),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', '69667ea7-1f98-458e-88dc-44722dcacf5f', '8cfd3d73-ffb5-4535-859c-350866c3508f', 8589934592, 1, '{"value": "South"}'),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 'd98acbe2-05e9-47c4-b5a6-520c2843afc9', '133684ff-f56f-4327-b342-135aa198eef7', 8589934592, 1, '{"pilot": "Tam", "visit": "V2"}'),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 'd98acbe2-05e9-47c4-b5a6-520c2843afc9', '7fa4893f-0570-4657-a434-3706192f518c', 4294967296, 3, '{"fee": "12.5", "pilot": "Rook Tansy", "visit": "V1", "arrival": "2026-11-24"}'),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', '852c6942-0d6b-4092-9bcd-0b02c2d75412', '075edd61-e263-4945-8e8f-af3ea18094c1', 17179869184, 1, '{"value": "Corin Vale"}');
INSERT INTO public.fields VALUES
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 'ef2b9e65-5255-4e61-ba20-8a0fc809e114', '852c6942-0d6b-4092-9bcd-0b02c2d75412', 'value', 'Pilots', 'text', 160, 3, NULL, NULL, ''),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 'e1782847-3a33-4d5f-8028-e535dd6b5287', '69667ea7-1f98-458e-88dc-44722dcacf5f', 'value', 'Quays', 'text', 160, 5, NULL, NULL, ''),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', '0bfa5c18-5ecc-483e-b70d-06e773408d7b', 'd98acbe2-05e9-47c4-b5a6-520c2843afc9', 'visit', 'Visit', 'text', 90, 8, NULL, NULL, ''),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', '6bbe23e7-7cf6-4bb3-b8bd-0447cbf693df', 'd98acbe2-05e9-47c4-b5a6-520c2843afc9', 'arrival', 'Arrival', 'date', 100, 10, NULL, NULL, ''),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 'eff9b4bc-a948-41d4-8c66-e0acd225a351', 'd98acbe2-05e9-47c4-b5a6-520c2843afc9', 'fee', 'Fee', 'amount', 100, 11, NULL, NULL, ''),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', '1df1ebab-6339-4cad-a24b-5a84b3d941c7', 'd98acbe2-05e9-47c4-b5a6-520c2843afc9', 'pilot', 'Pilot', 'text', 120, 9, '{"day": null, "hint": "Who?", "kind": "catalog", "level": null, "where": null, "begins": {"with": "empty", "value": ""}, "brings": [], "misfit": "clear", "others": "refuse", "fitting": [], "parents": [], "picking": {"list": true, "most": null, "lines": 8, "search": "anywhere"}, "catalogId": "548bab42-95f2-4955-bde8-0491e7b2874b", "noRepeats": false, "mayBeBlank": true, "blankParent": "nothing", "fillsSingle": false, "refusalText": ""}', '548bab42-95f2-4955-bde8-0491e7b2874b', '');
INSERT INTO public.house_counters VALUES
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 7);
INSERT INTO public.houses VALUES
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 'old', 'Old House', '{"currency": "EUR", "language": "en-GB", "dateOrder": "dmy", "yearPivot": 68, "decimalMark": "."}', false, 2, '{}');
INSERT INTO public.instance VALUES
	('a41d7f28');
INSERT INTO public.known_browsers VALUES
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 'badb9878-556b-44a3-8e59-ce8c1c533e54', '\x14a4cf041ead52feda722ef61eddfa595be7c8ede847bf571351491789936a54', '2026-11-29 14:20:54.66799+00');
INSERT INTO public.kysely_migration VALUES
	('0001-first-thread', '2026-11-29T14:20:53.930Z'),
	('0002-write-cell', '2026-11-29T14:20:53.933Z'),
	('0003-sources-in-full', '2026-11-29T14:20:53.950Z'),
	('0004-rules-in-full', '2026-11-29T14:20:53.952Z'),
	('0005-the-sheet-in-full', '2026-11-29T14:20:53.974Z'),
	('0006-taking-lists-back', '2026-11-29T14:20:53.977Z'),
	('0007-forms', '2026-11-29T14:20:53.986Z'),
	('0008-figures', '2026-11-29T14:20:53.990Z'),
	('0009-house-and-people', '2026-11-29T14:20:53.993Z'),
	('0010-alike-values', '2026-11-29T14:20:53.995Z'),
	('0011-entries-turned', '2026-11-29T14:20:53.997Z'),
	('0012-who-corrected', '2026-11-29T14:20:53.997Z'),
	('0013-known-browsers', '2026-11-29T14:20:54.000Z'),
	('0014-told-apart', '2026-11-29T14:20:54.002Z'),
	('0015-ledger-seals', '2026-11-29T14:20:54.007Z'),
	('0016-second-factor', '2026-11-29T14:20:54.011Z');
INSERT INTO public.kysely_migration_lock VALUES
	('migration_lock', 0);
INSERT INTO public.ledger OVERRIDING SYSTEM VALUE VALUES
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 1, '2026-11-29 14:20:54.66799+00', 'badb9878-556b-44a3-8e59-ce8c1c533e54', 'session.begun', NULL, NULL, NULL, NULL, NULL, NULL, '{"from": "node, 127.0.0.1"}', NULL),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 2, '2026-11-29 14:20:54.767239+00', 'badb9878-556b-44a3-8e59-ce8c1c533e54', 'cell.written', 'd98acbe2-05e9-47c4-b5a6-520c2843afc9', '7fa4893f-0570-4657-a434-3706192f518c', 'pilot', 2, 'Tam Ossel', 'Rook Tansy', NULL, NULL),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 3, '2026-11-29 14:20:54.786449+00', 'badb9878-556b-44a3-8e59-ce8c1c533e54', 'cell.written', 'd98acbe2-05e9-47c4-b5a6-520c2843afc9', '7fa4893f-0570-4657-a434-3706192f518c', 'fee', 3, NULL, '12.5', NULL, NULL),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 4, '2026-11-29 14:20:54.796837+00', 'badb9878-556b-44a3-8e59-ce8c1c533e54', 'entry.deleted', 'd98acbe2-05e9-47c4-b5a6-520c2843afc9', '27aece8c-a323-45ca-b4ce-ac67513592c4', NULL, 1, '12884901888', NULL, '{"visit": "V3"}', NULL),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 5, '2026-11-29 14:20:54.815797+00', 'badb9878-556b-44a3-8e59-ce8c1c533e54', 'entry.inserted', '852c6942-0d6b-4092-9bcd-0b02c2d75412', '075edd61-e263-4945-8e8f-af3ea18094c1', NULL, NULL, NULL, NULL, '{"value": "Corin Vale"}', NULL),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 6, '2026-11-29 14:20:54.815797+00', 'badb9878-556b-44a3-8e59-ce8c1c533e54', 'item.added', NULL, NULL, NULL, NULL, NULL, 'Corin Vale', '{"catalogId": "548bab42-95f2-4955-bde8-0491e7b2874b"}', NULL);
INSERT INTO public.people VALUES
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 'badb9878-556b-44a3-8e59-ce8c1c533e54', 'The administrator', 'administrator', 'administrator', 'administrator', '$argon2id$v=19$m=19456,t=2,p=1$3NtaJD0y+D+bO82M5f76EA$7GZy47CGmlwtqXyji5bZ3LqNuIuzq1YHWAj249e2t8I', NULL, NULL, NULL, NULL, NULL),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', '47a7d450-93f4-4532-b709-ca70350351e6', 'The clerk', 'clerk', 'clerk', 'clerk', '$argon2id$v=19$m=19456,t=2,p=1$3NtaJD0y+D+bO82M5f76EA$7GZy47CGmlwtqXyji5bZ3LqNuIuzq1YHWAj249e2t8I', NULL, NULL, NULL, NULL, NULL),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', '6ec856a1-a1f6-45da-9890-1899e1d4a220', 'The reader', 'reader', 'reader', 'reader', '$argon2id$v=19$m=19456,t=2,p=1$3NtaJD0y+D+bO82M5f76EA$7GZy47CGmlwtqXyji5bZ3LqNuIuzq1YHWAj249e2t8I', NULL, NULL, NULL, NULL, NULL);
INSERT INTO public.range_stretches VALUES
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', '35fb080c-c0a0-4b7b-a912-c94b05884165', 0, '852c6942-0d6b-4092-9bcd-0b02c2d75412', '["value"]', '{"at": "top"}', '{"ends": "last"}');
INSERT INTO public.ranges VALUES
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', '35fb080c-c0a0-4b7b-a912-c94b05884165', 'Pilots', 'pilots', 'list', false);
INSERT INTO public.registers VALUES
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', '69667ea7-1f98-458e-88dc-44722dcacf5f', '969e0e4d-91b2-483c-8c03-0bb62526ae16', 'Quays', 4, 1),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 'd98acbe2-05e9-47c4-b5a6-520c2843afc9', '7f2e201c-30d3-42a0-9ef6-f0788d0ebe60', 'Visits', 7, 2),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', '852c6942-0d6b-4092-9bcd-0b02c2d75412', '969e0e4d-91b2-483c-8c03-0bb62526ae16', 'Pilots', 2, 2);
INSERT INTO public.sessions VALUES
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', '\x7fd55fee3d94498d95738e819dfae30b24703393126f71da6168b0341797e9f8', 'badb9878-556b-44a3-8e59-ce8c1c533e54', '2026-11-29 14:20:54.66799+00', '2026-12-13 14:20:54.671+00', 'ba9bf715-3a08-4ecb-84bb-3061bcc68546', '2026-11-29 14:20:54.66799+00', 'node, 127.0.0.1');
INSERT INTO public.sheets VALUES
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', '969e0e4d-91b2-483c-8c03-0bb62526ae16', 'source', 'Lists', '', 1, false),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', '7f2e201c-30d3-42a0-9ef6-f0788d0ebe60', 'entry', 'Visits', '', 6, false);
INSERT INTO public.value_counts VALUES
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 'ef2b9e65-5255-4e61-ba20-8a0fc809e114', 'Bryn Calloway', 1),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 'ef2b9e65-5255-4e61-ba20-8a0fc809e114', 'Rook Tansy', 1),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 'ef2b9e65-5255-4e61-ba20-8a0fc809e114', 'Tam Ossel', 1),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 'e1782847-3a33-4d5f-8028-e535dd6b5287', 'North', 1),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 'e1782847-3a33-4d5f-8028-e535dd6b5287', 'South', 1),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', '0bfa5c18-5ecc-483e-b70d-06e773408d7b', 'V1', 1),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', '0bfa5c18-5ecc-483e-b70d-06e773408d7b', 'V2', 1),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', '0bfa5c18-5ecc-483e-b70d-06e773408d7b', 'V3', 1),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', '1df1ebab-6339-4cad-a24b-5a84b3d941c7', 'Tam', 1),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', '1df1ebab-6339-4cad-a24b-5a84b3d941c7', 'Tam Ossel', 1),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', '6bbe23e7-7cf6-4bb3-b8bd-0447cbf693df', '2026-11-24', 1);
INSERT INTO public.value_deltas OVERRIDING SYSTEM VALUE VALUES
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 1, '1df1ebab-6339-4cad-a24b-5a84b3d941c7', 'Tam Ossel', -1),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 2, '1df1ebab-6339-4cad-a24b-5a84b3d941c7', 'Rook Tansy', 1),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 3, 'eff9b4bc-a948-41d4-8c66-e0acd225a351', '12.5', 1),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 4, '0bfa5c18-5ecc-483e-b70d-06e773408d7b', 'V3', -1),
	('0f421d7d-9845-40d4-869a-4b6b22bc3520', 5, 'ef2b9e65-5255-4e61-ba20-8a0fc809e114', 'Corin Vale', 1);
SELECT pg_catalog.setval('public.acts_id_seq', 1, true);
SELECT pg_catalog.setval('public.catalog_changes_id_seq', 1, true);
SELECT pg_catalog.setval('public.entry_acts_id_seq', 1, false);
SELECT pg_catalog.setval('public.ledger_id_seq', 6, true);
SELECT pg_catalog.setval('public.sign_in_tries_id_seq', 1, true);
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
ALTER TABLE ONLY public.known_browsers
    ADD CONSTRAINT known_browsers_pkey PRIMARY KEY (house_id, person_id, token_hash);
ALTER TABLE ONLY public.kysely_migration_lock
    ADD CONSTRAINT kysely_migration_lock_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.kysely_migration
    ADD CONSTRAINT kysely_migration_pkey PRIMARY KEY (name);
ALTER TABLE ONLY public.ledger
    ADD CONSTRAINT ledger_pkey PRIMARY KEY (house_id, id);
ALTER TABLE ONLY public.ledger_seals
    ADD CONSTRAINT ledger_seals_pkey PRIMARY KEY (house_id, ord);
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
ALTER TABLE ONLY public.recovery_codes
    ADD CONSTRAINT recovery_codes_pkey PRIMARY KEY (house_id, person_id, code_hash);
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
ALTER TABLE ONLY public.told_apart
    ADD CONSTRAINT told_apart_pkey PRIMARY KEY (house_id, id);
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
CREATE INDEX ledger_person ON public.ledger USING btree (house_id, person_id, id);
CREATE INDEX ledger_rules ON public.ledger USING btree (house_id, id) WHERE (act = ANY (ARRAY['rule.set'::text, 'rule.cleared'::text]));
CREATE INDEX ledger_seldom ON public.ledger USING btree (house_id, id) WHERE ((act !~~ 'cell.%'::text) AND (act !~~ 'entry.%'::text));
CREATE INDEX requests_entry ON public.requests USING btree (house_id, field_id, entry_id);
CREATE INDEX requests_waiting ON public.requests USING btree (house_id, catalog_id) WHERE (state = 'waiting'::text);
CREATE INDEX sessions_person ON public.sessions USING btree (house_id, person_id);
CREATE INDEX sign_in_tries_at ON public.sign_in_tries USING btree (house_id, at);
CREATE INDEX sign_in_tries_key ON public.sign_in_tries USING btree (house_id, sign_in_key, at);
CREATE INDEX value_counts_alike ON public.value_counts USING btree (house_id, field_id, public.alike_key(value));
CREATE INDEX value_deltas_value ON public.value_deltas USING btree (house_id, field_id, value);
CREATE TRIGGER ledger_begun BEFORE INSERT ON public.ledger FOR EACH STATEMENT EXECUTE FUNCTION public.ledger_begun();
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
ALTER TABLE ONLY public.known_browsers
    ADD CONSTRAINT known_browsers_house_id_person_id_fkey FOREIGN KEY (house_id, person_id) REFERENCES public.people(house_id, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.ledger
    ADD CONSTRAINT ledger_house_id_fkey FOREIGN KEY (house_id) REFERENCES public.houses(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.ledger_seals
    ADD CONSTRAINT ledger_seals_house_id_fkey FOREIGN KEY (house_id) REFERENCES public.houses(id) ON DELETE CASCADE;
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
ALTER TABLE ONLY public.recovery_codes
    ADD CONSTRAINT recovery_codes_house_id_person_id_fkey FOREIGN KEY (house_id, person_id) REFERENCES public.people(house_id, id) ON DELETE CASCADE;
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
ALTER TABLE ONLY public.told_apart
    ADD CONSTRAINT told_apart_house_id_fkey FOREIGN KEY (house_id) REFERENCES public.houses(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.value_counts
    ADD CONSTRAINT value_counts_house_id_field_id_fkey FOREIGN KEY (house_id, field_id) REFERENCES public.fields(house_id, id) ON DELETE CASCADE;
