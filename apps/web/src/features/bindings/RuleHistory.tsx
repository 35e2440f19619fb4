// What was set and cleared in rules, by whom and when; each act is taken back as one.
import { Box, Stack, Text } from '@chakra-ui/react';
import { ruleTakes, type Rule } from '@dellum/core';
import type { BuildView, Me, RuleChange } from '@dellum/contract';
import { ActButton } from '../../frame/ActButton.js';
import { useNotice, useTry } from '../../frame/useNotice.js';
import { useRuleHistoryQuery, useTakeBackRulesMutation } from '../../data/bindingsApi.js';
import { ruleNames } from './rulePlace.js';
import { moment } from '../../frame/written.js';

const mostNamed = 3;

/** `fieldId`: the changes of one field only. */
export function RuleHistory({ fieldId, build, me }: { fieldId?: string; build: BuildView; me: Me }) {
  const { data: changes } = useRuleHistoryQuery(fieldId);
  const [takeBack, { isLoading }] = useTakeBackRulesMutation();
  const attempt = useTry();
  const notice = useNotice();
  const back = async (change: RuleChange) => {
    const done = await attempt(takeBack(change.id).unwrap());
    if (!done) return;
    const left =
      done.changed > 0
        ? ` ${done.changed} ${done.changed === 1 ? 'was' : 'were'} changed since and ${done.changed === 1 ? 'stays' : 'stay'}.`
        : '';
    notice('done', `The rule is as it was before in ${done.set === 1 ? '1 field' : `${done.set} fields`}.${left}`);
  };
  return (
    <Stack gap="2" role="region" aria-label="History of rules">
      {changes?.length === 0 && <Text color="inkSoft">No rule was set or cleared yet.</Text>}
      {changes?.map((change) => (
        <Box key={change.id} borderTopWidth="1px" borderColor="line" pt="2">
          <Text color="inkSoft" fontSize="xs">
            {moment.format(new Date(change.at))}, {change.by}
          </Text>
          <Text overflowWrap="anywhere">{changeWords(change, fieldId === undefined, build, me)}</Text>
          {change.standing && (
            <ActButton size="2xs" variant="ghost" px="0" loading={isLoading} onClick={() => void back(change)}>
              Take it back
            </ActButton>
          )}
        </Box>
      ))}
    </Stack>
  );
}

/** "Pilot, Pilot on board: takes one value from Pilots." */
function changeWords({ fields }: RuleChange, named: boolean, build: BuildView, me: Me): string {
  const places = build.sheets.flatMap(({ registers }) =>
    registers.flatMap((register) => register.fields.map((field) => ({ field, register }))),
  );
  const known = fields.flatMap((change) => {
    const place = places.find(({ field }) => field.id === change.fieldId);
    return place ? [{ ...place, after: change.after }] : [];
  });
  const [first] = known;
  if (!first) return 'Fields that are gone.';
  const takes = (rule: Rule | null) =>
    rule ? `takes ${ruleTakes(rule, ruleNames({ field: first.field, register: first.register, build, me }))}` : 'the rule was cleared';
  const headings =
    known
      .slice(0, mostNamed)
      .map(({ field }) => field.heading)
      .join(', ') + (known.length > mostNamed ? ` and ${known.length - mostNamed} more` : '');
  return named ? `${headings}: ${takes(first.after)}.` : `${takes(first.after)}.`.replace(/^./u, (letter) => letter.toUpperCase());
}
