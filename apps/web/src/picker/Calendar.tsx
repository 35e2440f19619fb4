// The calendar under a date that is being typed: one month, the typed day marked; days the rule does not take are struck.
import { Box, DatePicker, HStack, Kbd, parseDate, Text } from '@chakra-ui/react';
import { datePickerSlotRecipe } from '@chakra-ui/react/theme';
import type { Locale } from '@dellum/core';
import type { MouseEvent } from 'react';

interface CalendarProps {
  readonly label: string;
  /** The day that the typed text means (ISO 8601); undefined while it means none. */
  readonly day: string | undefined;
  /** The day at which it opens while nothing is typed. */
  readonly begin: string;
  readonly locale: Locale;
  /** Whether the rule would not take the day. */
  closed(day: string): boolean;
  onPick(day: string): void;
}

const foot = {
  display: 'flex',
  justifyContent: 'space-between',
  borderTopWidth: '1px',
  borderColor: 'lineSoft',
  fontSize: 'xs',
  color: 'inkSoft',
} as const;

export function Calendar({ label, day, begin, locale, closed, onPick }: CalendarProps) {
  const at = parseDate(day ?? begin);
  // The day that is marked already is no other value, and is picked all the same, unless the rule does not take it.
  const pickMarked = ({ target }: MouseEvent) => {
    if (day !== undefined && !closed(day) && target instanceof Element && target.closest('[data-view="day"][data-selected]')) onPick(day);
  };
  return (
    <Box role="group" aria-label={`Calendar of ${label}`} onClickCapture={pickMarked}>
      <DatePicker.Root
        recipe={datePickerSlotRecipe}
        key={day?.slice(0, 7) ?? 'begin'}
        inline
        size="xs"
        locale={locale.language}
        startOfWeek={locale.firstDay ?? 1}
        value={day === undefined ? [] : [at]}
        defaultFocusedValue={at}
        isDateUnavailable={(date) => closed(date.toString())}
        onValueChange={({ value }) => value[0] && onPick(value[0].toString())}
        colorPalette="damson"
      >
        <DatePicker.Content p="2" shadow="none" borderWidth="0" bg="transparent">
          <DatePicker.View view="day">
            <DatePicker.Header />
            <DatePicker.DayTable />
          </DatePicker.View>
          <DatePicker.View view="month">
            <DatePicker.Header />
            <DatePicker.MonthTable />
          </DatePicker.View>
          <DatePicker.View view="year">
            <DatePicker.Header />
            <DatePicker.YearTable />
          </DatePicker.View>
        </DatePicker.Content>
      </DatePicker.Root>
      <Box css={foot} px="3" py="1.5">
        <HStack gap="1" flexShrink={0}>
          <Kbd size="sm">↑</Kbd>
          <Kbd size="sm">↓</Kbd> day <Kbd size="sm">Page</Kbd> month
        </HStack>
        <Text>also “tomorrow”, “+3”</Text>
      </Box>
    </Box>
  );
}
