// A form as it is filled: the same for clerks, for people with a link, and in the preview, where nothing is stored.
import { Box, Button, Heading, HStack, SimpleGrid, Stack, Text } from '@chakra-ui/react';
import { controlOf, type Catalog, type FormField, type FormSection } from '@dellum/core';
import type { AnswerFault, Filled, FillView } from '@dellum/contract';
import { CircleAlert } from 'lucide-react';
import { useEffect, useId, useRef, useState, type ReactNode } from 'react';
import { ActButton } from '../../frame/ActButton.js';
import { isProblem, problemWords } from '../../data/problem.js';
import type { Move } from '../../grid/index.js';
import { RefusalNote, type Refusal } from '../../picker/PickerInput.js';
import { shownValue } from '../entries/shownValue.js';
import { asksInParts, FormControl } from './FormControl.js';
import { useFilling, type Filling } from './useFilling.js';

interface FillFormProps {
  readonly view: FillView;
  /** The lists that are there already. */
  readonly catalogs: ReadonlyMap<string, Catalog>;
  /** Under which the draft is kept in this browser; undefined keeps none. */
  readonly draftKey: string | undefined;
  /** One column, as on a phone. */
  readonly narrow?: boolean;
  /** Stores the answers; undefined in the preview. */
  send?(filling: Filling): Promise<Filled>;
  /** Loads the form again, after it was changed meanwhile. */
  reload?(): void;
  /** What follows a stored entry. */
  done?(filled: Filled): ReactNode;
}

export function FillForm({ view, catalogs, draftKey, narrow = false, send, reload, done }: FillFormProps) {
  const filling = useFilling(view, catalogs, draftKey);
  const [at, setAt] = useState<{ key: string; opened: boolean }>();
  const [sending, setSending] = useState(false);
  const [stored, setStored] = useState<Filled>();
  const [trouble, setTrouble] = useState<string>();
  const box = useRef<HTMLFormElement>(null);
  const formId = useId();
  const idOf = (key: string) => `${formId}-${key}`;
  const open = view.layout.sections.flatMap(({ fields }) => fields).filter(({ field }) => filling.shown.has(field));
  const { tries, problems } = filling;

  const focus = (key: string) => box.current?.querySelector<HTMLElement>(`[id="${idOf(key)}"]`)?.focus();
  const leave = (key: string, move: Move) => {
    setAt(undefined);
    if (move === 'stay') return;
    const place = open.findIndex(({ field }) => field === key);
    const next = open[place + (move === 'left' ? -1 : 1)]?.field;
    // The field appears as it is when it is not edited any more; then the next one can have the focus.
    window.requestAnimationFrame(() =>
      next === undefined
        ? box.current?.querySelector<HTMLElement>(move === 'left' ? '[data-first]' : 'button[type=submit]')?.focus()
        : focus(next),
    );
  };

  const submit = async () => {
    filling.tryToSend();
    setTrouble(undefined);
    if (problems.length > 0) return;
    if (!send) return;
    setSending(true);
    try {
      setStored(await send(filling));
      filling.anew();
    } catch (error) {
      if (isProblem(error) && error.answers) filling.refused(error.answers);
      else setTrouble(problemWords(error));
      if (isProblem(error) && error.code === 'form-changed') reload?.();
    } finally {
      setSending(false);
    }
  };

  if (stored) return <Stored view={view} catalogs={catalogs} filled={stored} more={done?.(stored)} another={() => setStored(undefined)} />;
  return (
    <form
      ref={box}
      noValidate
      aria-label={view.title}
      onSubmit={(event) => {
        event.preventDefault();
        if (!sending) void submit();
      }}
    >
      <Stack gap="5" p={{ base: '4', md: '6' }} maxW={narrow ? '390px' : '860px'}>
        <Box data-first tabIndex={-1}>
          {view.layout.intro !== '' && <Text whiteSpace="pre-wrap">{view.layout.intro}</Text>}
          {filling.isRestored && (
            <HStack gap="2" color="inkSoft" fontSize="xs" wrap="wrap">
              What you typed last time is here.
              <Button size="2xs" onClick={filling.anew}>
                Start over
              </Button>
            </HStack>
          )}
          <Problems
            tries={tries}
            problems={problems}
            headingOf={(key) => view.fields.find((field) => field.key === key)?.heading ?? key}
            trouble={trouble}
            focus={focus}
          />
        </Box>
        {view.layout.sections.map((section) => (
          <Section key={section.id} section={section} shown={filling.shown} narrow={narrow}>
            {(one) => {
              const field = view.fields.find(({ key }) => key === one.field);
              if (!field) return null;
              const refusal = filling.refusalAt(field.key);
              const id = idOf(field.key);
              const control = one.control ?? controlOf(field, null, undefined);
              const describedBy = [one.help !== '' && `${id}-help`, refusal && `${id}-fault`].filter(Boolean).join(' ') || undefined;
              return (
                <>
                  <HStack gap="1.5" mb="1">
                    <Text asChild fontWeight="bold" fontSize="sm">
                      {asksInParts(control) ? <span>{field.heading}</span> : <label htmlFor={id}>{field.heading}</label>}
                    </Text>
                    {field.rule?.mayBeBlank === false && (
                      <Text fontSize="xs" color="inkSoft">
                        must not be blank
                      </Text>
                    )}
                  </HStack>
                  {(one.help || field.rule?.hint) && (
                    <Text id={`${id}-help`} fontSize="xs" color="inkSoft" mb="1">
                      {one.help || field.rule?.hint}
                    </Text>
                  )}
                  <FormControl
                    id={id}
                    field={field}
                    control={control}
                    filling={filling}
                    refusal={refusal}
                    describedBy={describedBy}
                    editing={at?.key === field.key}
                    opened={at?.opened === true}
                    begin={(opened) => setAt({ key: field.key, opened })}
                    leave={(move) => leave(field.key, move)}
                  />
                  {refusal && at?.key !== field.key && (
                    <Fault
                      id={`${id}-fault`}
                      refusal={refusal}
                      take={(suggestion) => filling.commit(field, { typed: suggestion })}
                      meant={() => filling.commit(field, filling.given[field.key] ?? { typed: '' }, true)}
                    />
                  )}
                </>
              );
            }}
          </Section>
        ))}
        <Text color="growth.fg" role="status" minH="1.5em">
          {filling.said}
        </Text>
        <HStack gap="3">
          <ActButton size="md" variant="solid" type="submit" loading={sending}>
            {send ? 'Send' : 'Try to send'}
          </ActButton>
          {!send && <Text color="inkSoft">A preview: nothing is stored.</Text>}
          {!send && tries > 0 && problems.length === 0 && <Text color="growth.fg">This would be stored.</Text>}
        </HStack>
      </Stack>
    </form>
  );
}

interface FaultProps {
  readonly id: string;
  readonly refusal: Refusal;
  take(value: string): void;
  meant(): void;
}

/** What is wrong with one answer: a line, with buttons where there is something to choose. */
function Fault({ id, refusal, take, meant }: FaultProps) {
  if (refusal.suggestions.length > 0 || refusal.mayConfirm) {
    return (
      <Box mt="1.5">
        <RefusalNote id={id} refusal={refusal} onPick={take} onConfirm={meant} />
      </Box>
    );
  }
  return (
    <HStack id={id} mt="1" gap="1.5" color="brick.fg" fontSize="xs" align="start">
      <CircleAlert size={13} style={{ marginTop: '2px', flexShrink: 0 }} aria-hidden /> {refusal.message}
    </HStack>
  );
}

interface ProblemsProps {
  readonly tries: number;
  readonly problems: readonly AnswerFault[];
  readonly trouble: string | undefined;
  headingOf(field: string): string;
  focus(field: string): void;
}

/** All that is wrong, at the top, each with a way to its field. It has the focus whenever somebody has tried to send. */
function Problems({ tries, problems, trouble, headingOf, focus }: ProblemsProps) {
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (tries > 0) box.current?.focus();
  }, [tries]);
  return (
    <Box ref={box} tabIndex={-1} role="alert" outline="none" css={{ '&:not(:empty)': { marginTop: '12px' } }}>
      {tries > 0 && problems.length > 0 && (
        <Box bg="brick.subtle" color="brick.fg" borderLeftWidth="4px" borderColor="brick.solid" rounded="l2" px="4" py="3">
          <Text fontWeight="bold">
            {problems.length === 1 ? 'One answer is not taken yet' : `${problems.length} answers are not taken yet`}
          </Text>
          <Stack as="ul" gap="0.5" mt="1" listStyleType="none">
            {problems.map(({ field, message }) => (
              <li key={field}>
                <Box asChild minH="6" textAlign="start" textDecoration="underline" textUnderlineOffset="3px" cursor="pointer">
                  <button type="button" onClick={() => focus(field)}>
                    {message.includes(headingOf(field)) ? message : `${headingOf(field)}: ${message}`}
                  </button>
                </Box>
              </li>
            ))}
          </Stack>
        </Box>
      )}
      {trouble && (
        <Box bg="brick.subtle" color="brick.fg" borderLeftWidth="4px" borderColor="brick.solid" rounded="l2" px="4" py="3">
          {trouble}
        </Box>
      )}
    </Box>
  );
}

interface SectionProps {
  readonly section: FormSection;
  readonly shown: ReadonlySet<string>;
  readonly narrow: boolean;
  children(field: FormField): ReactNode;
}

/** A section with the fields that are shown now; one without any is not there. */
function Section({ section, shown, narrow, children }: SectionProps) {
  const fields = section.fields.filter(({ field }) => shown.has(field));
  if (fields.length === 0) return null;
  return (
    <Box as="section" aria-label={section.heading || undefined}>
      {section.heading !== '' && (
        <Heading as="h2" fontSize="md" pb="1" mb="3" borderBottomWidth="1px" borderColor="line">
          {section.heading}
        </Heading>
      )}
      {section.help !== '' && (
        <Text color="inkSoft" mb="3" whiteSpace="pre-wrap">
          {section.help}
        </Text>
      )}
      <SimpleGrid columns={narrow ? 1 : { base: 1, md: section.columns }} columnGap="6" rowGap="4" alignItems="start">
        {fields.map((one) => (
          <Box key={one.field} gridColumn={one.wide ? '1 / -1' : undefined} minW="0">
            {children(one)}
          </Box>
        ))}
      </SimpleGrid>
    </Box>
  );
}

interface StoredProps {
  readonly view: FillView;
  readonly catalogs: ReadonlyMap<string, Catalog>;
  readonly filled: Filled;
  readonly more: ReactNode;
  another(): void;
}

/** What was stored, in the words of the form. */
function Stored({ view, catalogs, filled, more, another }: StoredProps) {
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => heading.current?.focus(), []);
  const shown = view.layout.sections
    .flatMap(({ fields }) => fields)
    .flatMap(({ field: key }) => {
      const field = view.fields.find((known) => known.key === key);
      const value = filled.cells[key];
      return field && value !== undefined ? [{ field, text: shownValue(field, value, catalogs, view.house.locale) }] : [];
    });
  return (
    <Stack gap="4" p={{ base: '4', md: '6' }} maxW="720px">
      <Box bg="growth.subtle" color="growth.fg" borderLeftWidth="4px" borderColor="growth.solid" rounded="l2" px="4" py="3" role="status">
        <Heading as="h2" ref={heading} tabIndex={-1} fontSize="md" outline="none">
          {view.layout.thanks || 'It is stored.'}
        </Heading>
        {filled.again && <Text>It had been sent before, and is stored once.</Text>}
      </Box>
      <Box as="dl" display="grid" gridTemplateColumns={{ base: '1fr', sm: 'minmax(120px, 200px) 1fr' }} columnGap="5" rowGap="1">
        {shown.map(({ field, text }) => [
          <Text as="dt" key={`${field.key} heading`} color="inkSoft">
            {field.heading}
          </Text>,
          <Text as="dd" key={field.key} whiteSpace="pre-wrap" overflowWrap="anywhere">
            {text}
          </Text>,
        ])}
      </Box>
      <HStack gap="3">
        <Button size="md" variant="solid" onClick={another}>
          Another
        </Button>
        {more}
      </HStack>
    </Stack>
  );
}
