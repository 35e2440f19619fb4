// What a field holds, and letting it hold something else: what that does is said first.
import { Box, Button, HStack, Text } from '@chakra-ui/react';
import { fieldKinds, kindLabel, type FieldKind } from '@dellum/core';
import type { FieldView, KindTrial } from '@dellum/contract';
import { useState } from 'react';
import { Select } from '../../frame/Select.js';
import { useNotice, useTry } from '../../frame/useNotice.js';
import { useChangeKindMutation, useTryKindMutation } from '../../data/buildApi.js';
import { number } from '../../frame/written.js';

export function KindChoice({ field }: { field: FieldView }) {
  const [asked, setAsked] = useState<{ readonly kind: FieldKind; readonly trial: KindTrial }>();
  const [tryKind] = useTryKindMutation();
  const [changeKind] = useChangeKindMutation();
  const attempt = useTry();
  const notice = useNotice();
  const change = async (kind: FieldKind) => {
    if (
      (await attempt(
        changeKind({ id: field.id, kind })
          .unwrap()
          .then(() => true),
      )) !== true
    )
      return;
    setAsked(undefined);
    notice('done', `${field.heading} holds ${kindLabel(kind)} from now on.`);
  };
  const choose = async (kind: FieldKind) => {
    setAsked(undefined);
    if (kind === field.kind) return;
    const trial = await attempt(tryKind({ id: field.id, kind }).unwrap());
    if (trial && trial.unread === 0) await change(kind);
    else if (trial) setAsked({ kind, trial });
  };
  return (
    <Box mb="3">
      <HStack gap="2">
        <Text color="inkSoft">holds</Text>
        <Select
          label={`What ${field.heading} holds`}
          width="170px"
          value={asked?.kind ?? field.kind}
          options={fieldKinds.map((kind) => [kind, kindLabel(kind)] as const)}
          onChoose={(kind) => void choose(kind as FieldKind)}
        />
      </HStack>
      {asked && (
        <Box role="status" mt="2" p="2.5" borderWidth="1px" borderColor="amber.border" bg="amber.subtle" rounded="l3">
          <Text mb="2">
            {number.format(asked.trial.unread)} of {number.format(asked.trial.held)} entries hold what is not {kindLabel(asked.kind)}:{' '}
            {asked.trial.examples.map(({ value, entries }) => `“${value}” (${number.format(entries)})`).join(', ')}. They stay as they are
            and are marked.
          </Text>
          <HStack>
            <Button variant="solid" onClick={() => void change(asked.kind)}>
              Let it hold {kindLabel(asked.kind)}
            </Button>
            <Button onClick={() => setAsked(undefined)}>Cancel</Button>
          </HStack>
        </Box>
      )}
    </Box>
  );
}
