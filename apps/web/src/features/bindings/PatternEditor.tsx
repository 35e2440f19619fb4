// A pattern, made from examples or written by hand; tried on the examples as one types.
import { Button, Input, Stack, Text, Textarea } from '@chakra-ui/react';
import { patternFault, patternOf, readTypedList, writeTypedList, type PatternRule } from '@dellum/core';
import { useState } from 'react';
import { useLanguage } from '../../data/ruleLanguages.js';
import type { RulePartProps } from './rulePlace.js';

export function PatternEditor({ rule, place, choose }: RulePartProps<PatternRule>) {
  const [typed, setTyped] = useState(writeTypedList(rule.examples));
  const [pattern, setPattern] = useState(rule.pattern);
  const examples = readTypedList(typed, place.me.house.locale).values;
  const made = patternOf(examples);
  const known = useLanguage('pattern');
  const fault = patternFault(pattern);
  return (
    <Stack gap="2">
      <Textarea
        size="sm"
        rows={3}
        aria-label="Examples"
        placeholder="QH-2041, QH-0310"
        value={typed}
        onChange={(event) => {
          setTyped(event.target.value);
          const next = patternOf(readTypedList(event.target.value, place.me.house.locale).values);
          if (next !== undefined) setPattern(next);
        }}
      />
      {examples.length > 0 && made === undefined && (
        <Text color="amber.fg">The examples are not built alike; write the pattern by hand.</Text>
      )}
      <Input
        size="sm"
        aria-label="Regular expression"
        fontFamily="mono"
        placeholder="[A-Z]{2}-[0-9]{4}"
        value={pattern}
        onChange={(event) => setPattern(event.target.value)}
      />
      {pattern !== '' && fault && (
        <Text role="alert" color="brick.fg">
          {fault}
        </Text>
      )}
      <Text fontSize="xs" color="inkSoft">
        A regular expression in RE2 syntax; it must match the whole text.
      </Text>
      <Button
        variant="solid"
        alignSelf="start"
        disabled={!known || fault !== undefined}
        onClick={() => choose({ ...rule, pattern, examples })}
      >
        Take this pattern
      </Button>
    </Stack>
  );
}
