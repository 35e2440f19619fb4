// The chips under the title of a sheet: what is shown of it, what is outside, what was refused, what is under way.
import { Button, HStack, Text } from '@chakra-ui/react';
import type { FieldCount, RegisterView } from '@dellum/contract';
import type { ArrangementNames } from '@dellum/core';
import { Download, ListFilter, Search, Upload, Users } from 'lucide-react';
import { useAppSelector } from '../../data/store.js';
import { ArrangedBand } from '../arrangements/ArrangedBand.js';
import type { Arranging } from '../arrangements/useArrangement.js';
import { AlikeChip, OutsideChips } from './OutsideChips.js';
import { later } from '../../frame/later.js';
import { number } from '../../frame/written.js';

const UnderWay = later(async () => (await import('./UnderWay.js')).UnderWay);

interface SheetStripProps {
  readonly register: RegisterView;
  readonly counts: readonly FieldCount[];
  readonly outside: string | undefined;
  /** Says which one value is shown only. */
  readonly alike: string | undefined;
  readonly refused: number;
  /** Who else is on the sheet. */
  readonly here: readonly string[];
  readonly arranging: Arranging;
  readonly names: ArrangementNames;
  showOutside(outside: string | undefined): void;
  showAll(): void;
  showRefused(): void;
  arrange(): void;
  find(): void;
  /** Undefined where one may not. */
  readonly download: (() => void) | undefined;
  readonly bring: (() => void) | undefined;
}

export function SheetStrip(props: SheetStripProps) {
  const { register, counts, outside, alike, refused, arranging, names } = props;
  const act = useAppSelector((state) => state.acts[register.id]);
  const some = outside !== undefined || alike !== undefined;
  return (
    <HStack gap="2" wrap="wrap">
      <Button size="2xs" h="6" onClick={props.arrange}>
        <ListFilter size={12} aria-hidden /> Arrange
      </Button>
      <Button size="2xs" h="6" onClick={props.find}>
        <Search size={12} aria-hidden /> Find
      </Button>
      {props.download && (
        <Button size="2xs" h="6" onClick={props.download}>
          <Download size={12} aria-hidden /> Download
        </Button>
      )}
      {props.bring && (
        <Button size="2xs" h="6" onClick={props.bring}>
          <Upload size={12} aria-hidden /> Bring in
        </Button>
      )}
      {!some && <ArrangedBand arranging={arranging} names={names} open={props.arrange} />}
      {alike !== undefined && !outside && <AlikeChip words={alike} onClose={props.showAll} />}
      <OutsideChips register={register} counts={counts} outside={outside} onShow={props.showOutside} />
      {refused > 0 && (
        <Button size="2xs" h="6" rounded="full" colorPalette="brick" onClick={props.showRefused}>
          × {number.format(refused)} refused, kept for you
        </Button>
      )}
      {act && <UnderWay act={act} />}
      {props.here.length > 0 && (
        <HStack gap="1" color="growth.fg" fontSize="xs">
          <Users size={12} aria-hidden />
          <Text>
            {props.here.slice(0, 3).join(', ')}{' '}
            {props.here.length > 3 ? `and ${props.here.length - 3} more are` : props.here.length === 1 ? 'is' : 'are'} here too
          </Text>
        </HStack>
      )}
    </HStack>
  );
}
