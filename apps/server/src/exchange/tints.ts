// The colours of values in workbooks: faint, under ink of full contrast, as whole rows have them on screen.
import { itemColours, type ItemColour } from '@dellum/core';
import { itemInks } from '@dellum/contract';

/** So much of a colour is in its tint; the rest is white. */
const share = 0.22;

const part = (ink: string, at: number): string =>
  Math.round(255 - (255 - Number.parseInt(ink.slice(at, at + 2), 16)) * share)
    .toString(16)
    .padStart(2, '0')
    .toUpperCase();

/** RRGGBB, in the order of the colours. */
export const tints: readonly (readonly [colour: ItemColour, tint: string])[] = itemColours.map((colour) => [
  colour,
  [1, 3, 5].map((at) => part(itemInks[colour][0], at)).join(''),
]);

/** A text that stands in a formula; longer ones none of the standards takes. */
export const longestInFormula = 255;
export const quotedText = (text: string): string => `"${text.replaceAll('"', '""')}"`;
