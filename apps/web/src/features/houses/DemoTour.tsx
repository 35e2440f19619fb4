// Seven things to try in the demo house, each one link away: shown to whoever designs there, until it is hidden.
import { Box, Button, Heading, HStack, SimpleGrid, Text } from '@chakra-ui/react';
import type { BuildView, FigureView } from '@dellum/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { useFiguresQuery } from '../../data/figuresApi.js';

const hidden = 'dellum.tour.hidden';

interface Stop {
  readonly title: string;
  readonly about: string;
  readonly to: string | undefined;
}

/** Where the tour goes; a stop whose sheet or figure was deleted is left out. */
function stopsIn(build: BuildView, figures: readonly FigureView[]): readonly (Stop & { readonly to: string })[] {
  const sheet = (title: string) => build.sheets.find((known) => known.title === title);
  const visits = sheet('Berth visits');
  const lists = sheet('Harbour lists');
  const [figure] = figures;
  const inVisits = (search: string) => visits && `/sheets/${visits.id}${search}`;
  const stops: readonly Stop[] = [
    {
      title: 'Type a visit',
      about: 'Name a ship or its call sign: its length comes along, and only berths that are long enough are offered.',
      to: inVisits(''),
    },
    {
      title: 'Change a list in one place',
      about: 'Spell a pilot right in Harbour lists: you are told how many entries follow, and every field has it at once.',
      to: lists && `/sources/${lists.id}`,
    },
    {
      title: 'Read a rule as a sentence',
      about: 'Every part of it can be clicked and changed, and tried before it holds.',
      to: inVisits('?field=berth'),
    },
    {
      title: 'Find what no longer fits',
      about: 'Nothing is lost or rewritten: what is outside is counted, marked and listed, and says why.',
      to: inVisits('?outside=*'),
    },
    {
      title: 'Make a column a list',
      about: 'Cargo was typed freely for years. Its spellings are gathered, mended and bound in one act.',
      to: inVisits('?field=cargo&slip=gather'),
    },
    {
      title: 'Answer what clerks ask for',
      about: 'Values that were not in the list wait here, like ones together, each answered once.',
      to: '/requests',
    },
    {
      title: 'Open a figure',
      about: 'It follows the entries live, and each of its bars leads to them.',
      to: figure && `/figures/${figure.id}`,
    },
  ];
  return stops.flatMap(({ to, ...stop }) => (to ? [{ ...stop, to }] : []));
}

export function DemoTour({ build }: { build: BuildView }) {
  const [closed, setClosed] = useState(() => localStorage.getItem(hidden) !== null);
  const { data: figures } = useFiguresQuery();
  if (closed || !figures) return null;
  const close = () => {
    localStorage.setItem(hidden, 'yes');
    setClosed(true);
  };
  return (
    <Box as="section" aria-label="Things to try" m="5" mb="0" p="5" bg="paper" borderWidth="1px" borderColor="line" rounded="l3">
      <HStack justify="space-between" mb="3">
        <Heading as="h2" fontSize="lg">
          Seven things to try
        </Heading>
        <Button size="2xs" variant="ghost" colorPalette="slate" onClick={close}>
          Hide them
        </Button>
      </HStack>
      <SimpleGrid as="ol" columns={{ base: 1, md: 2, xl: 3 }} gap="4" listStyleType="none">
        {stopsIn(build, figures).map(({ title, about, to }, at) => (
          <HStack as="li" key={title} align="start" gap="3">
            <Text color="inkSoft" fontWeight="bold" w="1em" flexShrink={0}>
              {at + 1}
            </Text>
            <Box>
              <Box asChild fontWeight="bold" color="damson.fg" textDecoration="underline" textUnderlineOffset="3px">
                <Link to={to}>{title}</Link>
              </Box>
              <Text color="inkSoft">{about}</Text>
            </Box>
          </HStack>
        ))}
      </SimpleGrid>
    </Box>
  );
}
