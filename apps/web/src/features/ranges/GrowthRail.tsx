// The growth rail beside one row: a solid bar along what is taken, open-ended where it grows, a mark at what it misses.
import { Box } from '@chakra-ui/react';
import type { Rail, RailMark } from '@dellum/core';

export const railWidth = 16;

interface GrowthRailProps {
  readonly rails: readonly Rail[];
  readonly row: number;
  readonly chosen: string | undefined;
}

const dashes = 'repeating-linear-gradient(to bottom, var(--rail) 0 5px, transparent 5px 9px)';

function Segment({ mark, rail, row, chosen }: { mark: RailMark; rail: Rail; row: number; chosen: boolean }) {
  const { taking, extent } = rail;
  const colour = taking.grows ? 'growth.solid' : 'slate.solid';
  const first = row === extent.first;
  const last = row === extent.beyond - 1;
  if (mark === 'missed')
    return (
      <Box
        position="absolute"
        left="3px"
        top="10px"
        w="9px"
        h="9px"
        borderWidth="2px"
        borderColor="amber.solid"
        transform="rotate(45deg)"
      />
    );
  if (mark === 'grows')
    return (
      <Box
        position="absolute"
        left="4px"
        top="2px"
        bottom="4px"
        w="7px"
        css={{ '--rail': `{colors.${colour}}`, background: dashes, maskImage: 'linear-gradient(to bottom, black, transparent)' }}
      />
    );
  return (
    <>
      <Box
        position="absolute"
        left={chosen ? '3px' : '4px'}
        w={chosen ? '9px' : '7px'}
        top={first ? '3px' : '-1px'}
        bottom={last && !taking.grows ? '3px' : '0'}
        bg={mark === 'taken' ? colour : 'card'}
        borderWidth={mark === 'taken' ? '0' : '2px'}
        borderColor={colour}
        borderTopRadius={first ? '4px' : '0'}
      />
      {last && !taking.grows && <Box position="absolute" left="1px" right="2px" bottom="1px" h="3px" bg={colour} />}
    </>
  );
}

export function GrowthRail({ rails, row, chosen }: GrowthRailProps) {
  return (
    <Box
      position="relative"
      h="100%"
      aria-hidden
      data-rail={rails
        .map((rail) => rail.markAt(row) ?? '')
        .join(' ')
        .trim()}
    >
      {rails.map((rail, lane) => {
        const mark = rail.markAt(row);
        return mark ? (
          <Box key={rail.range.id} position="absolute" top="0" bottom="0" left={`${laneOf(rails, lane) * 12}px`} w={`${railWidth}px`}>
            <Segment mark={mark} rail={rail} row={row} chosen={rail.range.id === chosen} />
          </Box>
        ) : null;
      })}
    </Box>
  );
}

/** Rails that run beside the same rows stand next to each other; stacked ones share a lane. */
function laneOf(rails: readonly Rail[], at: number): number {
  const { first, beyond } = rails[at]!.extent;
  return rails.slice(0, at).filter(({ extent }) => extent.first < beyond && first < extent.beyond).length;
}

export const lanesOf = (rails: readonly Rail[]): number => Math.max(1, ...rails.map((_, at) => laneOf(rails, at) + 1));
