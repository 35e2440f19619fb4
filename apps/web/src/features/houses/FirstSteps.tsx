// The first steps in an empty house: what each is for, done in place or one link away, crossed off as they are done.
import { hasList } from '@dellum/core';
import { Box, Button, Heading, HStack, Input, List, Text } from '@chakra-ui/react';
import type { BuildView } from '@dellum/contract';
import { Check, Circle } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { Link, useNavigate } from 'react-router';
import { ActButton } from '../../frame/ActButton.js';
import { useTry } from '../../frame/useNotice.js';
import { Way } from '../../frame/Way.js';
import { usePeopleQuery } from '../../data/peopleApi.js';
import { useMakeSheetMutation } from '../../data/buildApi.js';

const dismissed = 'dellum.firstSteps.dismissed';

/** `children`: how one begins otherwise, with what one has. */
export function FirstSteps({ build, house, children }: { build: BuildView; house: string; children: ReactNode }) {
  const { data: people } = usePeopleQuery();
  const [closed, setClosed] = useState(() => localStorage.getItem(`${dismissed}.${house}`) !== null);
  const sheet = build.sheets.find(({ kind }) => kind === 'entry');
  const fields = build.sheets
    .filter(({ kind }) => kind === 'entry')
    .flatMap(({ registers }) => registers.flatMap((register) => register.fields));
  const done = {
    sheet: sheet !== undefined,
    fields: fields.length > 0,
    choices: fields.some(({ rule }) => hasList(rule)),
    people: (people?.length ?? 0) > 1,
  };
  if (closed || people === undefined || Object.values(done).every(Boolean)) return null;
  const close = () => {
    localStorage.setItem(`${dismissed}.${house}`, 'yes');
    setClosed(true);
  };
  const first = sheet?.registers[0]?.fields.find(({ kind }) => kind === 'text') ?? sheet?.registers[0]?.fields[0];
  return (
    <Box as="section" aria-label="First steps" m="5" p="5" maxW="640px" bg="paper" borderWidth="1px" borderColor="line" rounded="l3">
      <HStack justify="space-between" mb="3">
        <Heading as="h2" fontSize="lg">
          First steps
        </Heading>
        <Button size="2xs" variant="ghost" colorPalette="slate" onClick={close}>
          Hide them
        </Button>
      </HStack>
      <List.Root as="ol" gap="3" listStyleType="none">
        <Step done={done.sheet} title="Create a sheet" about="It is where people type: one row for each sale, visit or order.">
          <NewSheet />
        </Step>
        <Step done={done.fields} title="Give it its fields" about="The columns: a day, a seller, an amount. Each holds one kind of value.">
          {sheet && <Link to={`/sheets/${sheet.id}?new-field=`}>Add fields to {sheet.title}</Link>}
        </Step>
        <Step
          done={done.choices}
          title="Let a field offer choices"
          about="Typed into the field, or kept in a list that other fields use, too. Nobody spells a thing five ways any more."
        >
          {sheet && first && <Link to={`/sheets/${sheet.id}?field=${first.key}`}>Give {first.heading} its choices</Link>}
        </Step>
        <Step done={done.people} title="Let people in" about="Clerks enter data, stewards keep lists, readers look.">
          <Link to="/people">Add somebody</Link>
        </Step>
      </List.Root>
      {!done.sheet && (
        <Box mt="5" pt="4" borderTopWidth="1px" borderColor="line">
          {children}
          <Text mt="4" color="inkSoft" fontSize="sm">
            Or <Way to="/in-and-out">begin with a template, or with an archive of another house</Way>.
          </Text>
        </Box>
      )}
    </Box>
  );
}

interface StepProps {
  readonly done: boolean;
  readonly title: string;
  readonly about: string;
  readonly children: ReactNode;
}

function Step({ done, title, about, children }: StepProps) {
  return (
    <List.Item display="flex" gap="3" alignItems="start">
      <Box color={done ? 'growth.fg' : 'inkFaint'} mt="0.5" flexShrink={0}>
        {done ? <Check size={16} aria-label="done" /> : <Circle size={16} aria-label="to do" />}
      </Box>
      <Box flex="1">
        <Text fontWeight="bold" {...(done && { textDecoration: 'line-through', color: 'inkSoft' })}>
          {title}
        </Text>
        {!done && <Text color="inkSoft">{about}</Text>}
        {!done && (
          <Box mt="1" fontWeight="bold" color="damson.fg" css={{ '& a': { textDecoration: 'underline', textUnderlineOffset: '3px' } }}>
            {children}
          </Box>
        )}
      </Box>
    </List.Item>
  );
}

function NewSheet() {
  const [title, setTitle] = useState('');
  const [make, { isLoading }] = useMakeSheetMutation();
  const attempt = useTry();
  const navigate = useNavigate();
  const save = async () => {
    const made = await attempt(make({ kind: 'entry', title, note: '' }).unwrap());
    if (made) await navigate(`/sheets/${made.id}?new-field=`);
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
    >
      <HStack>
        <Input
          size="xs"
          maxW="220px"
          fontWeight="normal"
          bg="card"
          borderColor="slate.border"
          aria-label="Title of the first sheet"
          placeholder="Sales, visits, orders …"
          value={title}
          onChange={(event) => setTitle(event.target.value)}
        />
        <ActButton variant="solid" type="submit" loading={isLoading} disabled={title.trim() === ''}>
          Create it
        </ActButton>
      </HStack>
    </form>
  );
}
