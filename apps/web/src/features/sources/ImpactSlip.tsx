// The impact slip: what a change would do to entries, in numbers, and the answers that decide it.
import { Box, Button, HStack, Heading, RadioCard, Stack, Text } from '@chakra-ui/react';
import { heldBy, type Answer } from '@dellum/core';
import type { BuildView, Slip, SlipQuestion } from '@dellum/contract';
import { useState } from 'react';
import { useNotice, useTry } from '../../frame/useNotice.js';
import { useAnswerSlipMutation, useLeaveSlipMutation } from './sourcesApi.js';
import { number } from '../../frame/written.js';

const entries = (count: number) => `${number.format(count)} ${count === 1 ? 'entry' : 'entries'}`;

const titles: { readonly [A in Answer]: string } = { corrected: 'Corrected', replaced: 'Replaced', retired: 'Retired', gone: 'Gone' };

/** What an answer means for this value, in one or two sentences. */
function meaning(answer: Answer, { value, becomes = '', merges }: SlipQuestion, count: number): string {
  switch (answer) {
    case 'corrected':
      return `${merges ? `The same as ${becomes}` : 'The same, written right'}. ${entries(count)} follow at once; “${value}” is understood from now on.`;
    case 'replaced':
      return `Another value from now on. ${value} is retired; ${entries(count)} stay as they are.`;
    case 'retired':
      return `${entries(count)} that hold it stay right; nobody can choose it any more.`;
    case 'gone':
      return `${value} was wrong. ${entries(count)} that hold it are marked as outside.`;
  }
}

function titleOf({ questions }: Slip): string {
  const [first, ...more] = questions;
  if (!first) return 'Nothing is left to answer';
  if (more.length > 0) return `${questions.length} values that entries hold`;
  return first.becomes === undefined ? `${first.value} is taken out` : `${first.value} becomes ${first.becomes}`;
}

const keyOf = ({ catalogId, value }: SlipQuestion) => `${catalogId} ${value}`;

export function ImpactSlip({ slip, build }: { slip: Slip; build: BuildView }) {
  const [given, setGiven] = useState<Readonly<Record<string, Answer>>>(() => Object.fromEntries(slip.questions.flatMap((question) => (question.proposed ? [[keyOf(question), question.proposed]] : []))));
  const [answer, { isLoading }] = useAnswerSlipMutation();
  const [leave] = useLeaveSlipMutation();
  const attempt = useTry();
  const notice = useNotice();
  const holders = new Set(slip.questions.flatMap(({ holds }) => Object.keys(holds)));
  const sheets = build.sheets.filter((sheet) => sheet.registers.some(({ fields }) => fields.some(({ id }) => holders.has(id))));
  const total = slip.questions.reduce((sum, question) => sum + heldBy(question), 0);
  const open = slip.questions.filter((question) => given[keyOf(question)] === undefined);

  const doIt = async () => {
    const answers = slip.questions.map((question) => ({ catalogId: question.catalogId, value: question.value, answer: given[keyOf(question)]! }));
    const outcome = await attempt(answer({ id: slip.id, answers }).unwrap());
    if (outcome) notice('done', ['Done, and live everywhere.', ...outcome.notes].join(' '));
  };
  const leaveIt = async () => {
    if (await attempt(leave(slip.id).unwrap().then(() => true))) notice('done', 'Left as it was.');
  };
  return (
    <Stack gap="3" role="region" aria-label="Impact">
      <Box>
        <Heading as="h2" fontSize="lg" overflowWrap="anywhere">
          {titleOf(slip)}
        </Heading>
        <Text color="inkSoft">not live until you answer; asked for by {slip.by}</Text>
      </Box>
      <HStack gap="6" align="start">
        <Figure count={total} words={total === 1 ? 'entry holds it' : slip.questions.length === 1 ? 'entries hold it' : 'entries hold them'} />
        <Figure count={holders.size} words={holders.size === 1 ? 'field' : 'fields'} />
        <Figure count={sheets.length} words={sheets.length === 1 ? 'sheet' : 'sheets'} />
      </HStack>
      {slip.inside > 0 && <Text color="growth.fg">{entries(slip.inside)} come inside by it.</Text>}
      {slip.questions.map((question) => (
        <AnswerCards key={keyOf(question)} question={question} several={slip.questions.length > 1} given={given[keyOf(question)]} give={(chosen) => setGiven({ ...given, [keyOf(question)]: chosen })} />
      ))}
      <HStack>
        <Button size="sm" disabled={open.length > 0} loading={isLoading} onClick={() => void doIt()}>
          {actWords(Object.values(given), total)}
        </Button>
        <Button size="sm" variant="outline" onClick={() => void leaveIt()}>
          Cancel
        </Button>
      </HStack>
      {open.length > 0 && <Text color="inkSoft">Choose what {open.length === 1 ? 'it means' : 'each means'} first.</Text>}
    </Stack>
  );
}

/** What the answers will do, on the button that does it. */
function actWords(given: readonly Answer[], total: number): string {
  const [first] = given;
  if (first === undefined || given.some((answer) => answer !== first)) return 'Apply the answers';
  if (first === 'corrected') return `Rename in ${entries(total)}`;
  if (first === 'retired') return `Retire, and keep ${entries(total)}`;
  return first === 'replaced' ? 'Replace from now on' : `Take out, and mark ${entries(total)}`;
}

function Figure({ count, words }: { count: number; words: string }) {
  return (
    <Box>
      <Text fontSize="xl" fontWeight="bold" color="inkSoft" lineHeight="1.2">
        {number.format(count)}
      </Text>
      <Text fontSize="xs" color="inkSoft">
        {words}
      </Text>
    </Box>
  );
}

interface AnswerCardsProps {
  readonly question: SlipQuestion;
  readonly several: boolean;
  readonly given: Answer | undefined;
  give(answer: Answer): void;
}

function AnswerCards({ question, several, given, give }: AnswerCardsProps) {
  const count = heldBy(question);
  const about = question.becomes === undefined ? `${question.value} is taken out` : `${question.value} becomes ${question.becomes}`;
  return (
    <RadioCard.Root size="sm" value={given ?? null} onValueChange={({ value }) => value && give(value as Answer)} gap="2" aria-label={about}>
      {several && (
        <RadioCard.Label fontWeight="bold">
          {about}, {entries(count)}
        </RadioCard.Label>
      )}
      {question.choices.map((choice) => (
        <RadioCard.Item key={choice} value={choice} borderColor="line" _checked={{ bg: 'damson.subtle', borderColor: 'damson.border' }}>
          <RadioCard.ItemHiddenInput />
          <RadioCard.ItemControl>
            <RadioCard.ItemIndicator borderColor="slate.border" />
            <RadioCard.ItemContent>
              <RadioCard.ItemText fontWeight="bold">{titles[choice]}</RadioCard.ItemText>
              <RadioCard.ItemDescription color="inkSoft" opacity={1}>{meaning(choice, question, count)}</RadioCard.ItemDescription>
            </RadioCard.ItemContent>
          </RadioCard.ItemControl>
        </RadioCard.Item>
      ))}
    </RadioCard.Root>
  );
}
