// The calendar of a date field: which day a typed text means, and where its keys lead.
import { daysAfter, format, judge, monthsAfter, parse, type JudgeContext, type JudgedField } from '@dellum/core';
import { lazy, Suspense } from 'react';
import type { Days } from '../../picker/PickerInput.js';

/** The calendar comes when the first date is edited; one can type meanwhile. */
const Calendar = lazy(async () => ({ default: (await import('../../picker/Calendar.js')).Calendar }));

const steps: Readonly<Record<string, (day: string) => string>> = {
  ArrowDown: (day) => daysAfter(day, 1),
  ArrowUp: (day) => daysAfter(day, -1),
  PageDown: (day) => monthsAfter(day, 1),
  PageUp: (day) => monthsAfter(day, -1),
};

/** The calendar beside a date that is typed into the field; undefined for other kinds. */
export function daysOf(field: JudgedField, context: JudgeContext & { readonly today: string }): Days | undefined {
  if (field.kind !== 'date') return undefined;
  const { locale, today } = context;
  const dayIn = (text: string): string | undefined => {
    const parsed = parse('date', text, locale, today);
    return parsed.ok ? parsed.value : undefined;
  };
  const { held: _held, ...fresh } = context;
  return {
    step: (text, key) => {
      const step = steps[key];
      if (!step) return undefined;
      const day = dayIn(text);
      return format('date', day === undefined ? today : step(day), locale);
    },
    calendar: (text, pick) => (
      <Suspense fallback={null}>
        <Calendar label={field.heading} day={dayIn(text)} today={today} locale={locale} closed={(day) => judge(field, day, fresh).verdict === 'refused'} onPick={(day) => pick(format('date', day, locale))} />
      </Suspense>
    ),
  };
}
