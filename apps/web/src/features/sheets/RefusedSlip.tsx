// The slip of what was refused on this sheet: mended here, and tried again all at once.
import { Box, Button, HStack, Input, Stack, Text } from '@chakra-ui/react';
import type { RegisterView } from '@dellum/contract';
import { useState } from 'react';
import { SlipHead } from '../../frame/SlipHead.js';
import { useAppDispatch, useAppSelector } from '../../store.js';
import { draftKey, settled, type Draft } from '../entries/draftsSlice.js';
import type { Deeds } from './useDeeds.js';

/** So many are shown at once; when they are mended, others follow. */
const mostShown = 50;

export const useRefused = (registerId: string): readonly Draft[] => Object.values(useAppSelector((state) => state.drafts)).filter((draft) => draft.registerId === registerId && draft.state === 'refused');

export function RefusedSlip({ register, refused, deeds, close }: { register: RegisterView; refused: readonly Draft[]; deeds: Deeds; close: () => void }) {
  const dispatch = useAppDispatch();
  const [mended, setMended] = useState<Readonly<Record<string, string>>>({});
  const [working, setWorking] = useState(false);
  const keyOf = ({ entryId, field }: Draft) => draftKey(entryId, field);
  const textOf = (draft: Draft) => mended[keyOf(draft)] ?? draft.text;
  const shown = refused.slice(0, mostShown);
  const tryAgain = async () => {
    setWorking(true);
    await deeds.tryAgain(shown.map((draft) => ({ entry: draft.entryId, field: draft.field, text: textOf(draft) })));
    setWorking(false);
    setMended({});
  };
  return (
    <Stack gap="3">
      <SlipHead title="Refused, and kept for you" about={`${refused.length} ${refused.length === 1 ? 'cell' : 'cells'} of this sheet; nothing of them is stored`} close={close} />
      {refused.length === 0 && <Text color="growth.fg">All of them are settled.</Text>}
      {shown.map((draft) => {
        const heading = register.fields.find(({ key }) => key === draft.field)?.heading ?? draft.field;
        const set = (text: string) => setMended({ ...mended, [keyOf(draft)]: text });
        return (
          <Box key={keyOf(draft)} p="2.5" borderWidth="1px" borderColor="line" bg="paper" rounded="l3">
            <Text fontWeight="bold">{heading}</Text>
            <Text color="brick.fg" fontSize="xs" mb="1">
              {draft.message}
            </Text>
            <HStack gap="1">
              <Input size="xs" bg="card" borderColor="slate.border" aria-label={`${heading}, “${draft.text}”`} value={textOf(draft)} onChange={(event) => set(event.target.value)} />
              <Button size="xs" variant="outline" onClick={() => dispatch(settled(draft))}>
                Leave it
              </Button>
            </HStack>
            {draft.suggestions.length > 0 && (
              <HStack gap="1" mt="1.5" wrap="wrap">
                {draft.suggestions.map((suggestion) => (
                  <Button key={suggestion} size="2xs" variant="outline" colorPalette="growth" onClick={() => set(suggestion)}>
                    {suggestion}
                  </Button>
                ))}
              </HStack>
            )}
          </Box>
        );
      })}
      {refused.length > shown.length && <Text color="inkSoft">{refused.length - shown.length} more follow when these are settled.</Text>}
      {shown.length > 0 && (
        <Button size="sm" alignSelf="start" loading={working} onClick={() => void tryAgain()}>
          Try {shown.length === 1 ? 'it' : `these ${shown.length}`} again
        </Button>
      )}
    </Stack>
  );
}
