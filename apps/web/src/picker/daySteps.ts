// Where the keys of a calendar lead: a day or a month on or back.
import { daysAfter, monthsAfter } from '@dellum/core';

export const daySteps: Readonly<Record<string, ((day: string) => string) | undefined>> = {
  ArrowDown: (day) => daysAfter(day, 1),
  ArrowUp: (day) => daysAfter(day, -1),
  PageDown: (day) => monthsAfter(day, 1),
  PageUp: (day) => monthsAfter(day, -1),
};
