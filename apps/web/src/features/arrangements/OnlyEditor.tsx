// Which entries are shown by what they hold in one field: some of its values, those outside, a span, or a text in it.
import { Button, HStack, Input, Stack, Text } from '@chakra-ui/react';
import { boundWords, isNumeric, type Only, parse } from '@dellum/core';
import type { FieldView, Me } from '@dellum/contract';
import { useState } from 'react';
import { Check } from '../../frame/Check.js';
import { useHeldValuesQuery } from '../../data/arrangementsApi.js';
import { number } from '../../frame/written.js';

interface OnlyEditorProps {
  readonly registerId: string;
  readonly field: FieldView;
  readonly only: Only | undefined;
  readonly me: Me;
  readonly outside: number;
  /** A stored value as the field shows it. */
  value(value: string): string;
  set(only: Only | undefined): void;
}

export function OnlyEditor(props: OnlyEditorProps) {
  const { field, only, outside, set } = props;
  const isYesNo = field.kind === 'yes/no';
  const spans = field.kind === 'date' || isNumeric(field.kind);
  return (
    <Stack
      gap="3"
      p="3"
      borderWidth="1px"
      borderColor="line"
      bg="paper"
      rounded="l3"
      role="group"
      aria-label={`Show only by ${field.heading}`}
    >
      {(outside > 0 || only?.only === 'outside') && (
        <Check
          label={`only those outside (${number.format(outside)})`}
          checked={only?.only === 'outside'}
          set={(on) => set(on ? { only: 'outside', field: field.key } : undefined)}
        />
      )}
      {spans && <Span key={JSON.stringify(only)} {...props} />}
      <Values {...props} />
      {!spans && !isYesNo && <Containing key={only?.only === 'text' ? only.text : ''} {...props} />}
      {only && (
        <Button alignSelf="start" onClick={() => set(undefined)}>
          Show all of {field.heading}
        </Button>
      )}
    </Stack>
  );
}

function Values({ registerId, field, only, value, set }: OnlyEditorProps) {
  const [search, setSearch] = useState('');
  const { data } = useHeldValuesQuery({ registerId, field: field.key, search });
  const chosen = only?.only === 'values' ? only.values : [];
  const toggle = (held: string, on: boolean) => {
    const values = on ? [...chosen, held] : chosen.filter((known) => known !== held);
    set(values.length > 0 ? { only: 'values', field: field.key, values } : undefined);
  };
  const row = (held: string, words: string, entries: number) => (
    <Check key={held} label={`${words} (${number.format(entries)})`} checked={chosen.includes(held)} set={(on) => toggle(held, on)} />
  );
  if (field.kind === 'yes/no') {
    const entries = (answer: string) => data?.values.find((held) => held.value === answer)?.entries ?? 0;
    return (
      <Stack gap="1.5" role="group" aria-label={`Values of ${field.heading}`}>
        {['yes', 'no'].map((answer) => row(answer, value(answer), entries(answer)))}
        {data && data.blank > 0 && row('', 'blank', data.blank)}
      </Stack>
    );
  }
  return (
    <Stack gap="1.5">
      <Text fontWeight="bold">only these values</Text>
      <Input
        size="xs"
        borderColor="slate.border"
        aria-label={`Search values of ${field.heading}`}
        placeholder="find a value"
        value={search}
        onChange={(event) => setSearch(event.target.value)}
      />
      <Stack gap="1.5" maxH="220px" overflow="auto" tabIndex={0} role="group" aria-label={`Values of ${field.heading}`}>
        {data && search === '' && data.blank > 0 && row('', 'blank', data.blank)}
        {data?.values.map((held) => row(held.value, value(held.value), held.entries))}
        {data && data.values.length === 0 && search !== '' && <Text color="inkSoft">No entry holds such a value.</Text>}
        {data?.more && <Text color="inkSoft">There are more; search for the one you want.</Text>}
      </Stack>
    </Stack>
  );
}

function Span({ field, only, me, set }: OnlyEditorProps) {
  const { locale, today } = me.house;
  const held = only?.only === 'within' ? only : undefined;
  const [texts, setTexts] = useState({
    from: boundWords(field.kind, held?.from ?? null, locale),
    until: boundWords(field.kind, held?.until ?? null, locale),
  });
  const [fault, setFault] = useState('');
  const read = (text: string) => (text.trim() === '' ? null : parse(field.kind, text, locale, today));
  const apply = () => {
    const [from, until] = [read(texts.from), read(texts.until)];
    const wrong = [from, until].find((bound) => bound && !bound.ok);
    if (wrong && !wrong.ok) return setFault(wrong.reason);
    const [first, last] = [from?.ok ? from.value : null, until?.ok ? until.value : null];
    setFault('');
    set(first === null && last === null ? undefined : { only: 'within', field: field.key, from: first, until: last });
  };
  const bound = (name: 'from' | 'until') => (
    <Input
      size="xs"
      borderColor="slate.border"
      bg="card"
      aria-label={`${field.heading} ${name}`}
      placeholder={name}
      value={texts[name]}
      onChange={(event) => setTexts({ ...texts, [name]: event.target.value })}
    />
  );
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        apply();
      }}
    >
      <Text fontWeight="bold" mb="1.5">
        only a span
      </Text>
      <HStack gap="1.5">
        {bound('from')}
        {bound('until')}
        <Button type="submit">Show</Button>
      </HStack>
      {fault && (
        <Text role="alert" color="brick.fg" mt="1">
          {fault}
        </Text>
      )}
    </form>
  );
}

function Containing({ field, only, set }: OnlyEditorProps) {
  const [text, setText] = useState(only?.only === 'text' ? only.text : '');
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        set(text.trim() === '' ? undefined : { only: 'text', field: field.key, text });
      }}
    >
      <HStack gap="1.5">
        <Input
          size="xs"
          borderColor="slate.border"
          bg="card"
          aria-label={`${field.heading} contains`}
          placeholder="or those that contain …"
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
        <Button type="submit">Show</Button>
      </HStack>
    </form>
  );
}
