// Tries a field that is proposed: it takes what it will take, and stores nothing.
import { Stack } from '@chakra-ui/react';
import { catalogToBe, fieldsToBe, type HouseProposal, type ProposedTable } from '@dellum/core';
import type { Me } from '@dellum/contract';
import { useMemo } from 'react';
import { SlipHead } from '../../frame/SlipHead.js';
import { TrialEntry } from '../trial/TrialEntry.js';

interface TrySlipProps {
  readonly table: ProposedTable;
  /** Where its column stands. */
  readonly at: number;
  readonly proposal: HouseProposal;
  readonly me: Me;
  close(): void;
}

export function TrySlip({ table, at, proposal, me, close }: TrySlipProps) {
  const catalogs = useMemo(() => new Map(proposal.lists.map((list) => [list.id, catalogToBe(list)])), [proposal]);
  const fields = useMemo(() => fieldsToBe(table, proposal), [table, proposal]);
  const field = fields.find((one) => one.at === at)?.field;
  if (!field?.rule) return null;
  const place = { field, register: { fields: fields.map((one) => one.field) }, me };
  return (
    <Stack gap="3">
      <SlipHead title={field.heading} about={`as it will be in ${table.title}; nothing of it is stored`} close={close} />
      <TrialEntry key={JSON.stringify(field.rule)} rule={field.rule} place={place} catalogs={catalogs} />
    </Stack>
  );
}
