// What was refused on this sheet: mended here, one by one or all at once, and tried again.
import { Box, Button, HStack, Input, Stack, Text } from '@chakra-ui/react';
import type { RegisterView } from '@dellum/contract';
import { useState } from 'react';
import { ActButton } from '../../frame/ActButton.js';
import { SlipHead } from '../../frame/SlipHead.js';
import { useAppDispatch } from '../../data/store.js';
import { draftKey, mendedBy, settled, type Draft } from '../../data/draftsSlice.js';
import type { BlockActs } from './useBlockActs.js';
import { number } from '../../frame/written.js';

/** So many are shown at once; when they are mended, others follow. */
const mostShown = 50;

interface RefusedSlipProps {
  readonly register: RegisterView;
  readonly refused: readonly Draft[];
  readonly acts: BlockActs;
  rowOf(id: string): number | undefined;
  retry(draft: Draft, text: string): boolean;
  goTo(row: number, field: string): void;
  close(): void;
}

export function RefusedSlip({ register, refused, acts, rowOf, retry, goTo, close }: RefusedSlipProps) {
  const dispatch = useAppDispatch();
  const [mended, setMended] = useState<Readonly<Record<string, string>>>({});
  const [working, setWorking] = useState(false);
  const keyOf = ({ entryId, field }: Draft) => draftKey(entryId, field);
  const textOf = (draft: Draft) => mended[keyOf(draft)] ?? draft.text;
  const shown = refused.slice(0, mostShown);
  const suggested = refused.filter(({ suggestions }) => suggestions.length > 0);
  const rowNumber = (draft: Draft): number | undefined => rowOf(draft.entryId) ?? draft.row;

  const send = async (drafts: readonly Draft[], text: (draft: Draft) => string) => {
    setWorking(true);
    // What stands on the screen goes the way of a typed cell; the rest as a block.
    const away = drafts.filter((draft) => rowOf(draft.entryId) === undefined);
    for (const draft of drafts) if (rowOf(draft.entryId) !== undefined) retry(draft, text(draft));
    if (away.length > 0)
      await acts.tryAgain(away.map((draft) => ({ entry: draft.entryId, field: draft.field, given: mendedBy(draft, text(draft)) })));
    setWorking(false);
    setMended({});
  };
  const discardAll = () => {
    for (const draft of refused) dispatch(settled(draft));
    close();
  };
  return (
    <Stack gap="3">
      <SlipHead
        title="Refused, and kept for you"
        about={`${number.format(refused.length)} ${refused.length === 1 ? 'cell' : 'cells'} of this sheet; nothing of them is stored`}
        close={close}
      />
      {refused.length === 0 && <Text color="growth.fg">All of them are settled.</Text>}
      {refused.length > 0 && (
        <HStack wrap="wrap" gap="1.5">
          <Button
            variant="solid"
            disabled={suggested.length === 0 || working}
            onClick={() => void send(suggested, ({ suggestions }) => suggestions[0]!)}
          >
            Use all suggestions ({number.format(suggested.length)})
          </Button>
          <Button disabled={working} onClick={discardAll}>
            Discard all
          </Button>
        </HStack>
      )}
      {shown.map((draft) => {
        const heading = register.fields.find(({ key }) => key === draft.field)?.heading ?? draft.field;
        const row = rowNumber(draft);
        const where = row === undefined ? heading : `${heading}, row ${number.format(row + 1)}`;
        return (
          <Box key={keyOf(draft)} p="2.5" borderWidth="1px" borderColor="line" bg="paper" rounded="l3">
            {row === undefined ? (
              <Text fontWeight="bold">{where}</Text>
            ) : (
              <Button
                variant="plain"
                px="0"
                h="auto"
                fontWeight="bold"
                color="ink"
                textDecoration="underline"
                textUnderlineOffset="3px"
                onClick={() => goTo(row, draft.field)}
              >
                {where}
              </Button>
            )}
            <Text color="brick.fg" fontSize="xs" mb="1">
              {draft.message}
            </Text>
            <form
              onSubmit={(event) => {
                event.preventDefault();
                void send([draft], textOf);
              }}
            >
              <HStack gap="1">
                <Input
                  size="xs"
                  bg="card"
                  borderColor="slate.border"
                  aria-label={`${where}, “${draft.text}”`}
                  value={textOf(draft)}
                  onChange={(event) => setMended({ ...mended, [keyOf(draft)]: event.target.value })}
                />
                <Button aria-label={`Discard “${draft.text}” of ${where}`} onClick={() => dispatch(settled(draft))}>
                  Discard
                </Button>
              </HStack>
            </form>
            {draft.suggestions.length > 0 && (
              <HStack gap="1" mt="1.5" wrap="wrap">
                {draft.suggestions.map((suggestion) => (
                  <Button
                    key={suggestion}
                    size="2xs"
                    colorPalette="growth"
                    disabled={working}
                    onClick={() => void send([draft], () => suggestion)}
                  >
                    {suggestion}
                  </Button>
                ))}
              </HStack>
            )}
          </Box>
        );
      })}
      {refused.length > shown.length && (
        <Text color="inkSoft">{number.format(refused.length - shown.length)} more follow when these are settled.</Text>
      )}
      {shown.length > 0 && (
        <ActButton variant="solid" size="sm" alignSelf="start" loading={working} onClick={() => void send(shown, textOf)}>
          Try {shown.length === 1 ? 'it' : `these ${shown.length}`} again
        </ActButton>
      )}
    </Stack>
  );
}
