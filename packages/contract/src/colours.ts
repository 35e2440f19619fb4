// The colours that values can have, on screen and in files.
import type { ItemColour } from '@dellum/core';

/** Of each its ink on light paper and on dark (#RRGGBB). */
export const itemInks: { readonly [Colour in ItemColour]: readonly [light: string, dark: string] } = {
  olive: ['#7A7423', '#CFC774'],
  teal: ['#0E6E66', '#6CCBBF'],
  slate: ['#6B6072', '#B9ADBF'],
  damson: ['#6E2A5A', '#E3A4CF'],
  amber: ['#9A5E0A', '#E9B75A'],
  brick: ['#9E3526', '#F0998A'],
  moss: ['#3F6B2E', '#9CCB87'],
  sky: ['#2B5F8C', '#8FBFE6'],
};
