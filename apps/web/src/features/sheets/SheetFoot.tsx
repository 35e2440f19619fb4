// The foot of a sheet: what was said last, the legend of its colours, and the sum of the block.
import { Box, HStack, Text } from '@chakra-ui/react';
import { format, type ItemColour, type Locale } from '@dellum/core';
import type { BlockDto, FieldView } from '@dellum/contract';
import { ItemMark } from '../../theme/index.js';
import { useBlockSumQuery } from '../../data/entryActsApi.js';
import { number } from '../../frame/written.js';

interface SheetFootProps {
  readonly said: string;
  /** The active row, or the size of the block. */
  readonly where: string;
  readonly legend: readonly { readonly label: string; readonly colour: ItemColour }[];
  /** The block, when it is more than one cell. */
  readonly block: { readonly registerId: string; readonly block: BlockDto } | undefined;
  /** The fields of the block: a sum of percentages or amounts is shown as one. */
  readonly fields: readonly FieldView[];
  readonly locale: Locale;
}

export function SheetFoot({ said, where, legend, block, fields, locale }: SheetFootProps) {
  return (
    <Box flexShrink={0} borderTopWidth="1px" borderColor="line" bg="paper" color="inkSoft">
      {legend.length > 0 && (
        <HStack
          as="ul"
          aria-label="Legend"
          gap="4"
          px="4"
          h="26px"
          overflow="auto"
          borderBottomWidth="1px"
          borderColor="lineSoft"
          fontSize="xs"
          listStyle="none"
          tabIndex={0}
        >
          {legend.map(({ label, colour }) => (
            <HStack as="li" key={label} gap="1.5" flexShrink={0}>
              <ItemMark colour={colour} />
              {label}
            </HStack>
          ))}
        </HStack>
      )}
      <HStack role="status" aria-live="polite" justify="space-between" px="4" h="30px" gap="6">
        <Text truncate color="growth.fg" flex="1">
          {said}
        </Text>
        {block && <Sum block={block} fields={fields} locale={locale} />}
        <Text flexShrink={0}>{where}</Text>
      </HStack>
    </Box>
  );
}

function Sum({ block, fields, locale }: { block: NonNullable<SheetFootProps['block']>; fields: readonly FieldView[]; locale: Locale }) {
  const { currentData: sum } = useBlockSumQuery(block);
  if (!sum) return <Text flexShrink={0}>…</Text>;
  const kind = (['percent', 'amount'] as const).find((same) => fields.every((field) => field.kind === same)) ?? 'number';
  const shown = (value: string) => format(kind, value, locale);
  const words = [
    `${number.format(sum.filled)} filled`,
    ...(sum.numbers ? [`sum ${shown(sum.numbers.sum)}`, `mean ${shown(sum.numbers.mean)}`] : []),
  ];
  return <Text flexShrink={0}>{words.join(' · ')}</Text>;
}
