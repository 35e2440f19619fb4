// Choices typed or pasted for a field: set in the rule itself, or made a list of their own that other fields can take, too.
import { Box, Button, HStack, Text, Textarea } from '@chakra-ui/react';
import { newRule, readChoices, type TypedRule } from '@dellum/core';
import { useState } from 'react';
import { useNotice, useTry } from '../../frame/useNotice.js';
import { useMakeListForFieldMutation, useSetRuleMutation, useTryRuleMutation } from '../../data/bindingsApi.js';
import type { RulePlace } from './rulePlace.js';
import { number } from '../../frame/written.js';

/** Where the choices are kept: in the rule of this field alone, or in a list. */
type Keep = 'rule' | 'list';

/** What was asked for and would leave entries outside. */
interface Asked {
  readonly keep: Keep;
  readonly outside: number;
}

export function NewChoices({ place }: { place: RulePlace }) {
  const { field, me } = place;
  const { locale, today } = me.house;
  const [typed, setTyped] = useState('');
  const [fault, setFault] = useState('');
  const [asked, setAsked] = useState<Asked>();
  const [tryRule] = useTryRuleMutation();
  const [setRule] = useSetRuleMutation();
  const [makeList] = useMakeListForFieldMutation();
  const attempt = useTry();
  const notice = useNotice();
  const read = readChoices(typed, field.kind === 'several values' ? 'text' : field.kind, locale, today);
  const values = read.ok ? read.values : [];

  const store = async (keep: Keep, rule: TypedRule) => {
    const request =
      keep === 'rule'
        ? setRule({ fieldId: field.id, rule }).unwrap()
        : makeList({ fieldId: field.id, list: { values: [...values] } }).unwrap();
    if ((await attempt(request.then(() => true))) !== true) return;
    const count = `${number.format(values.length)} ${values.length === 1 ? 'choice' : 'choices'}`;
    notice(
      'done',
      keep === 'rule'
        ? `${field.heading} offers ${count} from now on.`
        : `${field.heading} takes its values from a list of ${count} from now on.`,
    );
  };
  const take = async (keep: Keep, sure = false) => {
    if (!read.ok) return setFault(read.reason);
    if (values.length === 0) return setFault('Type the choices first, parted by commas or lines.');
    const rule: TypedRule = { ...newRule('typed'), values };
    const trial = sure ? undefined : await attempt(tryRule({ fieldId: field.id, rule }).unwrap());
    if (trial && trial.outside > 0) return setAsked({ keep, outside: trial.outside });
    await store(keep, rule);
  };
  const acts = { rule: 'Set these choices', list: 'Make a list of them' } as const;
  return (
    <Box as="section" aria-label="New choices" w="100%">
      <Text fontWeight="bold" mb="1">
        Choices for this field
      </Text>
      <Textarea
        size="sm"
        rows={3}
        bg="card"
        borderColor="slate.border"
        aria-label="Choices"
        aria-invalid={fault !== ''}
        placeholder="Type or paste them, parted by commas or lines"
        value={typed}
        onChange={(event) => {
          setTyped(event.target.value);
          setFault('');
          setAsked(undefined);
        }}
        onKeyDown={(event) => {
          if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) void take('rule');
        }}
      />
      {fault !== '' && (
        <Text role="alert" color="brick.fg">
          {fault}
        </Text>
      )}
      {asked ? (
        <Box role="status" mt="2" p="2.5" borderWidth="1px" borderColor="amber.border" bg="amber.subtle" rounded="l3">
          <Text mb="2">
            {number.format(asked.outside)} {asked.outside === 1 ? 'entry holds' : 'entries hold'} something else;{' '}
            {asked.outside === 1 ? 'it stays as it is and is' : 'they stay as they are and are'} marked.
          </Text>
          <HStack>
            <Button variant="solid" onClick={() => void take(asked.keep, true)}>
              {acts[asked.keep]}
            </Button>
            <Button onClick={() => setAsked(undefined)}>Cancel</Button>
          </HStack>
        </Box>
      ) : (
        <HStack mt="2" wrap="wrap" gap="1.5">
          <Button variant="solid" title="Ctrl Enter" onClick={() => void take('rule')}>
            {acts.rule}
          </Button>
          <Button onClick={() => void take('list')}>{acts.list}</Button>
        </HStack>
      )}
      <Text mt="1" fontSize="xs" color="inkSoft">
        A list can be used by other fields, and goes on growing.
      </Text>
    </Box>
  );
}
