// One rule for the chosen fields: bound to a catalog, copied from another field, or cleared; with what it does in each.
import { Box, Button, Heading, HStack, Stack, Text } from '@chakra-ui/react';
import { newRule } from '@dellum/core';
import type { BuildView, RuleImpact, SetRulesDto } from '@dellum/contract';
import { useState } from 'react';
import { errorWords } from '../../data/problem.js';
import { ActButton } from '../../frame/ActButton.js';
import { useNotice, useTry } from '../../frame/useNotice.js';
import { Select } from '../../frame/Select.js';
import type { Line } from './BindingsPage.js';
import { useRulesTrialQuery, useSetRulesMutation } from '../../data/bindingsApi.js';
import { entries, number } from '../../frame/written.js';

interface ManyRulesProps {
  readonly lines: readonly Line[];
  readonly every: readonly Line[];
  readonly build: BuildView;
  done(): void;
}

export function ManyRules({ lines, every, build, done }: ManyRulesProps) {
  const [wanted, setWanted] = useState<SetRulesDto>();
  const fields = lines.map(({ field }) => field.id);
  const ruled = every.filter(({ field }) => field.rule !== null);
  // A chain runs through the fields as they stand on their sheet.
  const oneSheet = lines.length > 1 && lines.every(({ register }) => register.id === lines[0]!.register.id);
  const inOrder = oneSheet ? lines[0]!.register.fields.filter(({ id }) => fields.includes(id)) : [];
  const bind = (catalogId: string) => setWanted({ fields, rule: { ...newRule('catalog'), catalogId } });
  return (
    <Stack gap="3" role="region" aria-label="Chosen fields">
      <Box>
        <Heading as="h2" fontSize="lg">
          {lines.length === 1 ? '1 field' : `${number.format(lines.length)} fields`} chosen
        </Heading>
        <Text color="inkSoft">
          {lines
            .map(({ field, sheet }) => `${field.heading} of ${sheet.title}`)
            .slice(0, 6)
            .join(', ')}
          {lines.length > 6 && ` and ${lines.length - 6} more`}
        </Text>
      </Box>
      <Select
        label="Bind them to a catalog"
        value={wanted?.rule && 'catalogId' in wanted.rule ? wanted.rule.catalogId : ''}
        options={[['', 'Bind them to a catalog …'], ...build.catalogs.map(({ id, title }) => [id, title] as const)]}
        onChoose={(id) => id !== '' && bind(id)}
      />
      {oneSheet && (
        <Select
          label="Bind them as a chain"
          value={wanted?.chain ?? ''}
          options={[
            ['', `Bind ${inOrder.map(({ heading }) => heading).join(' › ')} as a chain …`],
            ...build.catalogs.map(({ id, title }) => [id, `to the levels of ${title}`] as const),
          ]}
          onChoose={(chain) => chain !== '' && setWanted({ fields: inOrder.map(({ id }) => id), chain })}
        />
      )}
      <Select
        label="Copy a rule to them"
        value={wanted?.from ?? ''}
        options={[
          ['', 'Copy the rule of a field …'],
          ...ruled.map(({ field, sheet, takes }) => [field.id, `${field.heading} of ${sheet.title}: ${takes}`] as const),
        ]}
        onChoose={(from) => from !== '' && setWanted({ fields, from })}
      />
      <HStack>
        <Button onClick={() => setWanted({ fields })}>Clear their rules</Button>
        <Button variant="ghost" onClick={done}>
          Choose none
        </Button>
      </HStack>
      {wanted && <Impact wanted={wanted} lines={lines} leave={() => setWanted(undefined)} done={done} />}
    </Stack>
  );
}

function Impact({ wanted, lines, leave, done }: { wanted: SetRulesDto; lines: readonly Line[]; leave: () => void; done: () => void }) {
  const { currentData: impacts, error } = useRulesTrialQuery(wanted);
  const [set, { isLoading }] = useSetRulesMutation();
  const attempt = useTry();
  const notice = useNotice();
  if (error) return <Text color="brick.fg">{errorWords(error)}</Text>;
  if (!impacts) return <Text color="inkSoft">Counting …</Text>;
  const fitting = impacts.filter(({ unfit }) => unfit === undefined);
  const doIt = async () => {
    const outcome = await attempt(set(wanted).unwrap());
    if (!outcome) return;
    notice(
      'done',
      wanted.rule || wanted.from || wanted.chain
        ? `The rule holds in ${outcome.set === 1 ? '1 field' : `${outcome.set} fields`} from now on.`
        : `${outcome.set === 1 ? '1 field takes' : `${outcome.set} fields take`} anything of ${outcome.set === 1 ? 'its' : 'their'} kind again; values stay as they are.`,
    );
    done();
  };
  const worse = fitting.some(({ outside, now }) => outside > now);
  return (
    <Box
      role="region"
      aria-label="Impact"
      p="3"
      borderWidth="1px"
      borderColor={worse ? 'amber.border' : 'line'}
      bg={worse ? 'amber.subtle' : 'paper'}
      rounded="l3"
    >
      <Text fontWeight="bold" mb="1">
        Not set yet
      </Text>
      <Stack as="ul" gap="1" listStyleType="none">
        {impacts.map((impact) => (
          <ImpactLine key={impact.fieldId} impact={impact} line={lines.find(({ field }) => field.id === impact.fieldId)} />
        ))}
      </Stack>
      <HStack mt="3">
        <ActButton variant="solid" size="sm" disabled={fitting.length === 0} loading={isLoading} onClick={() => void doIt()}>
          {wanted.rule || wanted.from || wanted.chain ? 'Set' : 'Clear'} the{' '}
          {fitting.length === 1 ? 'rule of 1 field' : `rules of ${fitting.length} fields`}
        </ActButton>
        <Button size="sm" onClick={leave}>
          Cancel
        </Button>
      </HStack>
    </Box>
  );
}

function ImpactLine({ impact, line }: { impact: RuleImpact; line: Line | undefined }) {
  const { held, outside, now, unfit } = impact;
  const words = unfit
    ? `passed over: ${unfit}`
    : outside === now
      ? `${outside === 0 ? 'none' : entries(outside)} of ${entries(held)} outside, as now`
      : `${number.format(outside)} of ${entries(held)} would be outside; now ${number.format(now)}`;
  return (
    <li>
      <b>
        {line?.field.heading}, {line?.sheet.title}
      </b>
      :{' '}
      <Text as="span" color={unfit ? 'brick.fg' : undefined}>
        {words}
      </Text>
    </li>
  );
}
