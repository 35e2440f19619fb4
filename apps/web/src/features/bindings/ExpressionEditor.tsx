// An expression over the entry, and what is said where it is not true; read as one types.
import { Button, Input, Stack, Text, Textarea } from '@chakra-ui/react';
import { expressionFault, expressionNames, type ExpressionRule } from '@dellum/core';
import { useState } from 'react';
import { useLanguage } from '../../data/ruleLanguages.js';
import type { RulePartProps } from './rulePlace.js';

export function ExpressionEditor({ rule, place, choose }: RulePartProps<ExpressionRule>) {
  const [expression, setExpression] = useState(rule.expression);
  const [message, setMessage] = useState(rule.message);
  const known = useLanguage('expression');
  const fault = expressionFault(expression);
  const others = expressionNames({ fields: place.register.fields.filter(({ key }) => key !== place.field.key) });
  return (
    <Stack gap="2">
      <Textarea
        size="sm"
        rows={3}
        aria-label="Expression"
        fontFamily="mono"
        placeholder="value <= entry.length * 2"
        value={expression}
        onChange={(event) => setExpression(event.target.value)}
      />
      {expression !== '' && fault && (
        <Text role="alert" color="brick.fg">
          {fault}
        </Text>
      )}
      <Text fontSize="xs" color="inkSoft">
        In CEL. <b>value</b> is what is typed, <b>today</b> the day (like "2026-11-25"){others.length > 0 && ', and other fields are '}
        {others.map(({ name, heading }) => `${name} (${heading})`).join(', ')}. A blank field is null.
      </Text>
      <Input
        size="sm"
        aria-label="Said where it is not true"
        placeholder="Said where it is not true"
        maxLength={200}
        value={message}
        onChange={(event) => setMessage(event.target.value)}
      />
      <Button
        variant="solid"
        alignSelf="start"
        disabled={!known || fault !== undefined}
        onClick={() => choose({ ...rule, expression: expression.trim(), message: message.trim() })}
      >
        Take this expression
      </Button>
    </Stack>
  );
}
