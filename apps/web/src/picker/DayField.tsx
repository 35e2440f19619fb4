// A day in a small form: typed as the house writes days, or picked from a calendar.
import { Field, IconButton, Input, InputGroup, type InputProps } from '@chakra-ui/react';
import { format, isOfKind, parse } from '@dellum/core';
import { CalendarDays } from 'lucide-react';
import { useRef, useState } from 'react';
import { fetchedPart } from '../data/fetchedPart.js';
import { useMeQuery } from '../data/sessionApi.js';
import { daySteps } from './daySteps.js';
import { Floating } from './Floating.js';

const { Part: Calendar } = fetchedPart(async () => (await import('./Calendar.js')).Calendar);

interface DayFieldProps {
  readonly label: string;
  /** The day (ISO 8601), or '' where there is none. */
  readonly day: string;
  readonly from?: string;
  readonly until?: string;
  readonly size?: InputProps['size'];
  readonly fault?: string | undefined;
  onDay(day: string): void;
  /** What was typed is no day that can be chosen: a form that is sent must not send the day of before. */
  onWrong?(text: string): void;
}

/** A day that is written in full is taken while it is typed; others once one goes on. */
const writtenInFull = /\d{4}/u;

export function DayField({ label, day: given, from = '', until = '9999', size = 'sm', fault, onDay, onWrong }: DayFieldProps) {
  const { data: me } = useMeQuery();
  const [typed, setTyped] = useState<string>();
  const [open, setOpen] = useState(false);
  const [group, setGroup] = useState<HTMLElement | null>(null);
  const input = useRef<HTMLInputElement>(null);
  if (!me) return null;
  const { locale, today } = me.house;
  const day = isOfKind('date', given) ? given : '';
  const closed = (one: string) => one < from || one > until;
  const begin = day || (closed(today) ? from || until : today);
  const read = (text: string): string | undefined => {
    if (text.trim() === '') return '';
    const parsed = parse('date', text, locale, today);
    return parsed.ok && !closed(parsed.value) ? parsed.value : undefined;
  };
  const type = (text: string) => {
    setTyped(text);
    const meant = read(text);
    if (meant === undefined) onWrong?.(text);
    else if (meant === '' || writtenInFull.test(text)) onDay(meant);
  };
  const settle = () => {
    const meant = typed === undefined ? undefined : read(typed);
    if (meant === undefined) return;
    if (meant !== given) onDay(meant);
    setTyped(undefined);
  };
  const pick = (one: string) => {
    onDay(one);
    setTyped(undefined);
    setOpen(false);
    input.current?.focus();
  };
  const wrong =
    typed !== undefined && read(typed) === undefined
      ? `Write a day like ${format('date', today, locale)}${closed(today) || from || until !== '9999' ? ', one that can be chosen in the calendar' : ''}.`
      : undefined;
  return (
    <Field.Root invalid={fault !== undefined || (wrong !== undefined && !open)}>
      <Field.Label>{label}</Field.Label>
      <InputGroup
        ref={setGroup}
        endElementProps={{ px: '1' }}
        endElement={
          <IconButton
            size="2xs"
            variant="ghost"
            colorPalette="slate"
            aria-label={`Calendar of ${label}`}
            aria-expanded={open}
            onMouseDown={(event) => event.preventDefault()}
            onClick={() => setOpen(!open)}
          >
            <CalendarDays size={14} />
          </IconButton>
        }
      >
        <Input
          ref={input}
          size={size}
          bg="card"
          borderColor="slate.border"
          autoComplete="off"
          value={typed ?? (day === '' ? '' : format('date', day, locale))}
          onChange={(event) => type(event.target.value)}
          onBlur={() => {
            settle();
            setOpen(false);
          }}
          onKeyDown={(event) => {
            const step = open && !event.altKey ? daySteps[event.key] : undefined;
            if (event.key === 'Enter') settle();
            else if (event.key === 'ArrowDown' && event.altKey) setOpen(true);
            else if (event.key === 'Escape' && open) setOpen(false);
            else if (step) {
              event.preventDefault();
              const next = day === '' ? begin : step(day);
              setTyped(undefined);
              if (!closed(next)) onDay(next);
            }
          }}
        />
      </InputGroup>
      {open && (
        <Floating anchor={group}>
          <Calendar label={label} day={day || undefined} begin={begin} locale={locale} closed={closed} onPick={pick} />
        </Floating>
      )}
      <Field.ErrorText role="alert">{fault ?? wrong}</Field.ErrorText>
    </Field.Root>
  );
}
