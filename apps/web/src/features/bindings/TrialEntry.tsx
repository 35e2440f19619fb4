// Trial entry: a live field that behaves exactly as the clerk's, and stores nothing.
import { Box, Text } from '@chakra-ui/react';
import { judge, type CatalogRule } from '@dellum/core';
import type { FieldView, Me } from '@dellum/contract';
import { useState } from 'react';
import { PickerInput, type Refusal } from '../../picker/PickerInput.js';
import type { ReadyCatalog } from '../catalogs/useCatalogs.js';

interface TrialEntryProps {
  readonly field: FieldView;
  readonly rule: CatalogRule;
  readonly ready: ReadyCatalog | undefined;
  readonly me: Me;
}

export function TrialEntry({ field, rule, ready, me }: TrialEntryProps) {
  const [text, setText] = useState('');
  const [held, setHeld] = useState('');
  const [said, setSaid] = useState('');
  const [refusal, setRefusal] = useState<Refusal>();
  const [round, setRound] = useState(0);
  const [begun, setBegun] = useState(false);

  const take = (typed: string) => {
    if (!ready) return;
    const verdict = judge({ heading: field.heading, kind: field.kind, rule }, typed, { locale: me.house.locale, catalogs: new Map([[rule.catalogId, ready.catalog]]), held, suggest: true, today: me.house.today });
    if (verdict.verdict === 'refused') {
      setText(typed);
      setRefusal({ message: verdict.message, suggestions: verdict.suggestions });
      setSaid('');
      return;
    }
    setText(verdict.value);
    setHeld(verdict.value);
    setRefusal(undefined);
    setSaid(verdict.corrected ?? (verdict.value === '' ? 'Blank is taken.' : `${verdict.value} is taken.`));
    setRound(round + 1);
  };
  return (
    <Box mt="4" p="3" bg="paper" borderWidth="1px" borderColor="line" rounded="l3">
      <Text fontWeight="bold" mb="2">
        Try it
      </Text>
      <Box h="34px">
        {begun ? (
          <PickerInput
            key={round}
            label={`Try ${field.heading}`}
            ready={ready}
            rule={rule}
            text={text}
            held={held}
            openAtOnce={false}
            refusal={refusal}
            selectAll
            style={trialStyle}
            onText={(typed) => {
              setText(typed);
              setRefusal(undefined);
              setSaid('');
            }}
            onTake={take}
            onEscape={() => {
              setText(held);
              setRefusal(undefined);
            }}
            onBlur={() => undefined}
          />
        ) : (
          <input aria-label={`Try ${field.heading}`} style={trialStyle} placeholder="Type as a clerk would" onFocus={() => setBegun(true)} readOnly />
        )}
      </Box>
      <Text mt="2" color="growth.fg" role="status" minH="1.5em">
        {said || (rule.hint && `Hint: ${rule.hint}`)}
      </Text>
    </Box>
  );
}

const trialStyle = {
  width: '100%',
  height: '100%',
  padding: '0 10px',
  font: 'inherit',
  color: 'inherit',
  background: 'var(--chakra-colors-card)',
  border: '1px solid var(--chakra-colors-slate-border)',
  borderRadius: '7px',
  outlineColor: 'var(--chakra-colors-damson-solid)',
} as const;
