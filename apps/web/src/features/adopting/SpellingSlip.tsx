// What a text of a list becomes: one of its values, a value of its own, or none.
import { Button, Stack, Text } from '@chakra-ui/react';
import type { ProposedList } from '@dellum/core';
import { Select } from '../../frame/Select.js';
import { SlipHead } from '../../frame/SlipHead.js';

interface SpellingSlipProps {
  readonly list: ProposedList;
  readonly text: string;
  become(value: string | null): void;
  close(): void;
}

export function SpellingSlip({ list, text, become, close }: SpellingSlipProps) {
  const values = [...new Set(list.levels.flatMap((level) => level.values.map(({ value }) => value)))];
  const now = list.levels.flatMap((level) => level.values).find(({ spellings }) => spellings.some(({ value }) => value === text))?.value;
  const decide = (value: string | null) => {
    become(value);
    close();
  };
  return (
    <Stack gap="3">
      <SlipHead
        title={`“${text}”`}
        about={now === undefined ? `none of the values of ${list.title}` : `becomes ${now}, and stays its other name`}
        close={close}
      />
      <Stack gap="1">
        <Text>It means</Text>
        <Select
          label={`What ${text} means`}
          value={now ?? ''}
          options={[...(now === undefined ? [['', 'none of them'] as const] : []), ...values.map((value) => [value, value] as const)]}
          onChoose={(value) => {
            if (value !== '') decide(value);
          }}
        />
      </Stack>
      {list.home === null && <Button onClick={() => decide(text)}>Make it a value of its own</Button>}
      {now !== undefined && <Button onClick={() => decide(null)}>Keep it as it is, outside</Button>}
    </Stack>
  );
}
