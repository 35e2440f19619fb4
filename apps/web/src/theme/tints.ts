// A whole row in the colour of one of its values: faint, under ink of full contrast.
import type { SystemStyleObject } from '@chakra-ui/react';
import { itemColours } from '@dellum/core';

/** Styles by the class `tint-<colour>` of a row. */
export const tintStyles: SystemStyleObject = Object.fromEntries(
  itemColours.map((colour) => [
    `& .tint-${colour} .dl-cell:not(.dl-rowhead):not(.in-block)`,
    { bg: `color-mix(in srgb, {colors.item.${colour}} 11%, {colors.card})` },
  ]),
);
