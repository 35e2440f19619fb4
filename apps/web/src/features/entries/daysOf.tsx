// The calendar of a date field: which day a typed text means, and where its keys lead.
import { daysAfter, format, judge, parse, type JudgeContext, type JudgedField } from '@dellum/core';
import { fetchedPart } from '../../data/fetchedPart.js';
import { daySteps } from '../../picker/daySteps.js';
import type { Days } from '../../picker/PickerInput.js';

/** The calendar comes when the first date is edited; one can type meanwhile. */
const { Part: Calendar } = fetchedPart(async () => (await import('../../picker/Calendar.js')).Calendar);

/** How far from today a day to begin with is looked for. */
const farthest = 400;

/** The calendar beside a date that is typed into the field; undefined for other kinds. */
export function daysOf(field: JudgedField, context: JudgeContext & { readonly today: string }): Days | undefined {
  if (field.kind !== 'date') return undefined;
  const { locale, today } = context;
  const dayIn = (text: string): string | undefined => {
    const parsed = parse('date', text, locale, today);
    return parsed.ok ? parsed.value : undefined;
  };
  const { held: _held, ...fresh } = context;
  const closed = (day: string) => judge(field, { chosen: day }, fresh).verdict === 'refused';
  /** Where one begins while nothing is typed: today, or the day nearest to it that the rule takes. */
  const start = (): string => {
    for (let days = 0; days <= farthest; days++) {
      const near = [daysAfter(today, days), daysAfter(today, -days)].find((day) => !closed(day));
      if (near !== undefined) return near;
    }
    return today;
  };
  return {
    step: (text, key) => {
      const step = daySteps[key];
      if (!step) return undefined;
      const day = dayIn(text);
      return format('date', day === undefined ? start() : step(day), locale);
    },
    calendar: (text, pick) => (
      <Calendar
        label={field.heading}
        day={dayIn(text)}
        begin={dayIn(text) ?? start()}
        locale={locale}
        closed={closed}
        onPick={(day) => pick(format('date', day, locale))}
      />
    ),
  };
}
