// Trial entry: a live field that behaves exactly as the clerk's, and stores nothing.
import { Box, HStack, Text } from '@chakra-ui/react';
import {
  askedBeforeNew,
  format,
  hasCatalog,
  judge,
  parse,
  readsOf,
  wordsOf,
  type Catalog,
  type Given,
  type JudgeContext,
  type Rule,
} from '@dellum/core';
import { useMemo, useState } from 'react';
import { boxStyle } from '../../picker/boxStyle.js';
import { PickerInput, type Refusal } from '../../picker/PickerInput.js';
import { daysOf } from '../entries/daysOf.js';
import { pickList } from '../../picker/pickList.js';
import type { FieldView, Me } from '@dellum/contract';

/** Where the field stands that is tried: it need not be there yet. */
export interface TriedPlace {
  readonly field: Pick<FieldView, 'heading' | 'kind'>;
  readonly register: { readonly fields: readonly Pick<FieldView, 'key' | 'heading' | 'kind' | 'rule'>[] };
  readonly me: { readonly house: Pick<Me['house'], 'locale' | 'today'> };
}

interface TrialEntryProps {
  readonly rule: Rule;
  readonly place: TriedPlace;
  readonly catalogs: ReadonlyMap<string, Catalog>;
}

export function TrialEntry({ rule, place, catalogs }: TrialEntryProps) {
  const { field, register, me } = place;
  const [text, setText] = useState('');
  const [held, setHeld] = useState('');
  const [said, setSaid] = useState('');
  const [refusal, setRefusal] = useState<Refusal>();
  const [round, setRound] = useState(0);
  const [begun, setBegun] = useState(false);
  const [beside, setBeside] = useState<Readonly<Record<string, string>>>({});
  const { locale, today } = me.house;

  const context = useMemo((): JudgeContext => {
    const others = register.fields.flatMap(({ key, kind }) => {
      const parsed = parse(kind, beside[key]?.trim() ?? '', locale, today);
      return beside[key]?.trim() && parsed.ok ? [[key, parsed.value] as const] : [];
    });
    return {
      locale,
      today,
      catalogs,
      fields: register.fields,
      entry: Object.fromEntries(others),
      suggest: true,
      // What the rule takes is tried, whoever may change the field.
      designs: true,
    };
  }, [register, beside, locale, today, catalogs]);
  const list = useMemo(() => pickList(rule, place.field.kind, { ...context, held }), [rule, place.field.kind, context, held]);
  const isReady = hasCatalog({ rule }, catalogs);

  const refuse = (typed: string, { message, suggestions, mayConfirm }: Refusal) => {
    setText(typed);
    setRefusal({ message, suggestions, ...(mayConfirm && { mayConfirm: true }) });
    setSaid('');
  };
  const take = (given: Given, confirmed = false) => {
    const typed = given.typed ?? list?.textOf({ value: given.chosen }) ?? wordsOf(field.kind, given, locale);
    if (!isReady) return;
    const verdict = judge({ heading: field.heading, kind: field.kind, rule }, given, { ...context, held, confirmed });
    if (verdict.verdict === 'refused') return refuse(typed, verdict);
    const asked = confirmed ? undefined : askedBeforeNew(verdict, typed);
    if (asked) return refuse(typed, asked);
    const shown = format(field.kind, verdict.value, locale);
    setText(shown);
    setHeld(verdict.value);
    setRefusal(undefined);
    const taken = verdict.value === '' ? 'Blank is taken.' : `${shown} is taken.`;
    const said = {
      marked: `${shown} would be stored, marked as outside.`,
      requested: `${shown} would be stored, marked, and asked for.`,
      added: `${shown} would be added to the catalog and taken.`,
    };
    setSaid(verdict.verdict === 'taken' ? (verdict.corrected ?? taken) : said[verdict.verdict]);
    setRound(round + 1);
  };
  const reads = readsOf(rule).flatMap((key) => register.fields.find((other) => other.key === key) ?? []);
  return (
    <Box mt="4" p="3" bg="paper" borderWidth="1px" borderColor="line" rounded="l3">
      <Text fontWeight="bold" mb="2">
        Try it
      </Text>
      {reads.map(({ key, heading }) => (
        <HStack key={key} mb="1.5" gap="2">
          <Text asChild w="100px" color="inkSoft" truncate>
            <label htmlFor={`trial-${key}`}>{heading}</label>
          </Text>
          <input
            id={`trial-${key}`}
            style={{ ...boxStyle, height: '28px' }}
            value={beside[key] ?? ''}
            onChange={(event) => setBeside({ ...beside, [key]: event.target.value })}
          />
        </HStack>
      ))}
      <Box h="34px">
        {begun ? (
          <PickerInput
            key={round}
            label={`Try ${field.heading}`}
            list={list}
            others={rule.others}
            days={list ? undefined : daysOf({ heading: field.heading, kind: field.kind, rule }, { ...context, today })}
            text={text}
            held={held}
            openAtOnce={false}
            refusal={refusal}
            selectAll
            style={boxStyle}
            onText={(typed) => {
              setText(typed);
              setRefusal(undefined);
              setSaid('');
            }}
            onTake={(given, _by, confirmed) => take(given, confirmed)}
            onEscape={() => {
              setText(format(field.kind, held, locale));
              setRefusal(undefined);
            }}
            onBlur={() => undefined}
          />
        ) : (
          <input
            aria-label={`Try ${field.heading}`}
            style={boxStyle}
            placeholder="Type as a clerk would"
            onFocus={() => setBegun(true)}
            readOnly
          />
        )}
      </Box>
      <Text mt="2" color="growth.fg" role="status" minH="1.5em">
        {said || (rule.hint && `Hint: ${rule.hint}`)}
      </Text>
    </Box>
  );
}
