// The why slip: why a value is offered in a field, or not, traced step by step; another value can be asked about.
import { Box, HStack, Input, Stack, Text } from '@chakra-ui/react';
import type { TraceStep } from '@dellum/core';
import type { BuildView, FieldView } from '@dellum/contract';
import { Check, X } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { errorWords } from '../../data/problem.js';
import { ActButton } from '../../frame/ActButton.js';
import { SlipHead } from '../../frame/SlipHead.js';
import { cureOf } from '../ranges/RangeFindings.js';
import { useCureMutation } from '../../data/rangesApi.js';
import { useTold } from '../acts/useRegister.js';
import { useWhyQuery } from '../../data/bindingsApi.js';

interface WhySlipProps {
  readonly field: FieldView;
  /** The entry in which it is asked, with its row number. */
  readonly entry: { readonly id: string; readonly row: number } | undefined;
  readonly text: string;
  readonly build: BuildView;
  close(): void;
}

export function WhySlip({ field, entry, text, build, close }: WhySlipProps) {
  const [asked, setAsked] = useState(text);
  const [typed, setTyped] = useState(text);
  const { data: trace, error } = useWhyQuery(
    { fieldId: field.id, text: asked, ...(entry && { entry: entry.id }) },
    { skip: asked.trim() === '' },
  );
  return (
    <Stack gap="3" role="region" aria-label="Why">
      <SlipHead title="Why?" about={entry ? `${field.heading}, row ${entry.row}` : field.heading} close={close} />
      <form
        onSubmit={(event) => {
          event.preventDefault();
          setAsked(typed);
        }}
      >
        <Input
          size="sm"
          aria-label="Value that is asked about"
          placeholder="a value, then Enter"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
        />
      </form>
      {error !== undefined && <Text color="brick.fg">{errorWords(error)}</Text>}
      {trace && asked.trim() !== '' && (
        <>
          <Text fontWeight="bold" role="status" color={trace.offered ? 'growth.fg' : 'brick.fg'}>
            “{trace.value}” {trace.offered ? 'can be entered here.' : 'cannot be entered here.'}
          </Text>
          <Stack as="ol" gap="0" listStyleType="none">
            {trace.steps.map((step, at) => (
              <Step key={at} step={step} field={field} build={build} isLast={at === trace.steps.length - 1} />
            ))}
          </Stack>
        </>
      )}
    </Stack>
  );
}

/** The address of the source of a value. */
function sourceOf({ origin, at, step }: TraceStep, field: FieldView, build: BuildView): string | undefined {
  if (at) return `/catalogs/${at.catalogId}${at.composing ? '?slip=compose' : ''}`;
  if (step === 'rule') return placeOfField(field, build);
  if (!origin) return undefined;
  if (origin.by === 'catalog') return `/catalogs/${origin.id}`;
  if (origin.by === 'linked') return `/linked/${origin.id}`;
  const [row] = origin.rows;
  const sheet = build.sheets.find(({ registers }) => registers.some(({ id }) => id === row?.register));
  if (!sheet || !row) return undefined;
  return sheet.kind === 'source'
    ? `/sources/${sheet.id}?${origin.by === 'range' ? `range=${origin.id}&` : ''}row=${row.ordinal + 1}`
    : `/sheets/${sheet.id}`;
}

/** The address of a field, with its slip. */
function placeOfField(field: FieldView, build: BuildView): string | undefined {
  const sheet = build.sheets.find(
    ({ kind, registers }) => kind === 'entry' && registers.some(({ fields }) => fields.some(({ id }) => id === field.id)),
  );
  return sheet && `/sheets/${sheet.id}?field=${field.key}`;
}

function Step({ step, field, build, isLast }: { step: TraceStep; field: FieldView; build: BuildView; isLast: boolean }) {
  const [cure, { isLoading }] = useCureMutation();
  const told = useTold();
  const to = sourceOf(step, field, build);
  return (
    <HStack as="li" align="stretch" gap="2.5">
      <Stack gap="0" align="center" w="20px" flexShrink={0}>
        <Box
          rounded="full"
          w="20px"
          h="20px"
          display="grid"
          placeItems="center"
          bg={step.passed ? 'growth.subtle' : 'brick.subtle'}
          color={step.passed ? 'growth.fg' : 'brick.fg'}
        >
          {step.passed ? <Check size={12} aria-hidden /> : <X size={12} aria-hidden />}
        </Box>
        {!isLast && <Box flex="1" w="2px" bg="line" minH="8px" />}
      </Stack>
      <Box pb="2.5">
        <Text fontSize="xs" color="inkSoft">
          {step.step}
          <Box as="span" className="sr-only">
            {step.passed ? ', passed' : ', lost here'}
          </Box>
        </Text>
        <Text>
          {step.words}{' '}
          {to && (
            <Box asChild color="damson.fg" textDecoration="underline" textUnderlineOffset="3px">
              <Link to={to}>{step.step === 'rule' ? 'See the rule' : step.at?.composing ? 'How it is composed' : 'Look at it'}</Link>
            </Box>
          )}
        </Text>
        {step.cure?.cure && (
          <ActButton mt="1" loading={isLoading} title={step.cure.cure.effect} onClick={() => void told(cure(cureOf(step.cure!)).unwrap())}>
            {step.cure.cure.words}
          </ActButton>
        )}
      </Box>
    </HStack>
  );
}
