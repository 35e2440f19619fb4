// The impact slip: what a change would do to entries, in numbers, and the answers that decide it.
import { Box, Button, HStack, Heading, RadioCard, Stack, Text } from '@chakra-ui/react';
import { radioCardSlotRecipe } from '@chakra-ui/react/theme';
import { heldBy, questionKey, type Answer } from '@dellum/core';
import type { BuildView, Slip, SlipQuestion } from '@dellum/contract';
import { useState } from 'react';
import { ActButton } from '../../frame/ActButton.js';
import { useNotice, useTry } from '../../frame/useNotice.js';
import { useAnswerSlipMutation, useLeaveSlipMutation } from '../../data/sourcesApi.js';
import { entries, number } from '../../frame/written.js';

const titles: { readonly [A in Answer]: string } = { corrected: 'Corrected', replaced: 'Replaced', retired: 'Retired', gone: 'Gone' };

const placeWords = (path: readonly string[]) => path.join(' › ');

/** What an answer means for this value, in one or two sentences. */
function meaning(answer: Answer, { value, path, becomes = '', merges }: SlipQuestion, count: number): string {
  if (path && answer === 'retired')
    return `${entries(count)} that hold it under ${placeWords(path)} stay right; nobody can choose it there any more.`;
  if (path && answer === 'gone')
    return `It was wrong there. ${entries(count)} that hold it under ${placeWords(path)} are marked as outside.`;
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

/** What happens to the value that is asked about. */
function aboutOf({ value, path, under, becomes }: SlipQuestion): string {
  if (path && under) return `${value} goes from ${placeWords(path)} to ${placeWords(under)}`;
  return becomes === undefined ? `${value} is taken out` : `${value} becomes ${becomes}`;
}

function titleOf({ questions, outside }: Slip): string {
  const [first, ...more] = questions;
  if (!first) return outside.length > 0 ? 'Entries would be outside' : 'Nothing is left to answer';
  return more.length > 0 ? `${questions.length} values that entries hold` : aboutOf(first);
}

const keyOf = (question: SlipQuestion) => `${question.catalogId} ${questionKey(question)}`;

export function ImpactSlip({ slip, build }: { slip: Slip; build: BuildView }) {
  const [given, setGiven] = useState<Readonly<Record<string, Answer>>>(() =>
    Object.fromEntries(slip.questions.flatMap((question) => (question.proposed ? [[keyOf(question), question.proposed]] : []))),
  );
  const [answer, { isLoading }] = useAnswerSlipMutation();
  const [leave] = useLeaveSlipMutation();
  const attempt = useTry();
  const notice = useNotice();
  const holders = new Set([...slip.questions.flatMap(({ holds }) => Object.keys(holds)), ...slip.outside.map(({ fieldId }) => fieldId)]);
  const sheets = build.sheets.filter((sheet) => sheet.registers.some(({ fields }) => fields.some(({ id }) => holders.has(id))));
  const held = slip.questions.reduce((sum, question) => sum + heldBy(question), 0);
  const outside = slip.outside.reduce((sum, one) => sum + one.entries, 0);
  const open = slip.questions.filter((question) => given[keyOf(question)] === undefined);

  const doIt = async () => {
    const answers = slip.questions.map((question) => ({
      catalogId: question.catalogId,
      value: question.value,
      ...(question.level !== undefined && { level: question.level }),
      ...(question.path && { path: [...question.path] }),
      answer: given[keyOf(question)]!,
    }));
    const outcome = await attempt(answer({ id: slip.id, answers }).unwrap());
    if (outcome) notice('done', ['Done, and live everywhere.', ...outcome.notes].join(' '));
  };
  const leaveIt = async () => {
    if (
      await attempt(
        leave(slip.id)
          .unwrap()
          .then(() => true),
      )
    )
      notice('done', 'Left as it was.');
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
        {slip.questions.length > 0 && (
          <Figure
            count={held}
            words={held === 1 ? 'entry holds it' : slip.questions.length === 1 ? 'entries hold it' : 'entries hold them'}
          />
        )}
        {outside > 0 && <Figure count={outside} words={outside === 1 ? 'entry would be outside' : 'entries would be outside'} />}
        <Figure count={holders.size} words={holders.size === 1 ? 'field' : 'fields'} />
        <Figure count={sheets.length} words={sheets.length === 1 ? 'sheet' : 'sheets'} />
      </HStack>
      {slip.outside.map((one) => (
        <Text key={one.fieldId} color="amber.fg">
          {entries(one.entries)} would be outside in {placeOf(build, one.fieldId)}: what{' '}
          {one.entries === 1 ? 'it holds no longer fits' : 'they hold no longer fits'} the rest of {one.entries === 1 ? 'it' : 'them'}.
        </Text>
      ))}
      {slip.inside > 0 && <Text color="growth.fg">{entries(slip.inside)} come inside by it.</Text>}
      {slip.questions.map((question) => (
        <AnswerCards
          key={keyOf(question)}
          question={question}
          several={slip.questions.length > 1}
          given={given[keyOf(question)]}
          give={(chosen) => setGiven({ ...given, [keyOf(question)]: chosen })}
        />
      ))}
      <HStack>
        <ActButton variant="solid" size="sm" disabled={open.length > 0} loading={isLoading} onClick={() => void doIt()}>
          {slip.questions.length === 0 ? `Change it, and mark ${entries(outside)}` : actWords(Object.values(given), held)}
        </ActButton>
        <Button size="sm" onClick={() => void leaveIt()}>
          Cancel
        </Button>
      </HStack>
      {open.length > 0 && <Text color="inkSoft">Choose what {open.length === 1 ? 'it means' : 'each means'} first.</Text>}
    </Stack>
  );
}

/** A field with the sheet it stands on. */
function placeOf({ sheets }: BuildView, fieldId: string): string {
  const sheet = sheets.find(({ registers }) => registers.some(({ fields }) => fields.some(({ id }) => id === fieldId)));
  const field = sheet?.registers.flatMap(({ fields }) => fields).find(({ id }) => id === fieldId);
  return field && sheet ? `${field.heading} of ${sheet.title}` : 'a field';
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
  const about = aboutOf(question);
  return (
    <RadioCard.Root
      recipe={radioCardSlotRecipe}
      size="sm"
      value={given ?? null}
      onValueChange={({ value }) => value && give(value as Answer)}
      gap="2"
      aria-label={about}
    >
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
              <RadioCard.ItemDescription color="inkSoft" opacity={1}>
                {meaning(choice, question, count)}
              </RadioCard.ItemDescription>
            </RadioCard.ItemContent>
          </RadioCard.ItemControl>
        </RadioCard.Item>
      ))}
    </RadioCard.Root>
  );
}
