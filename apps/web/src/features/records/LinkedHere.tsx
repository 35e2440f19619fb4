// The entries of another register that name this record.
import { Box, Heading, HStack, Stack, Text } from '@chakra-ui/react';
import type { BuildView, LinkHere, Me } from '@dellum/contract';
import { Link } from 'react-router';
import { recordTitle } from './recordWords.js';
import { entryRegisters, useRecordCells } from '../sheets/useRegisterPlace.js';
import { number } from '../../frame/written.js';

export function LinkedHere({ links, build, me }: { links: LinkHere; build: BuildView; me: Me }) {
  const register = entryRegisters(build).find(({ id }) => id === links.registerId);
  return register ? <LinkedEntries register={register} links={links} me={me} /> : null;
}

function LinkedEntries({ register, links, me }: { register: ReturnType<typeof entryRegisters>[number]; links: LinkHere; me: Me }) {
  const cells = useRecordCells(register, me);
  const field = register.fields.find(({ id }) => id === links.fieldId);
  if (!field) return null;
  const title = `${register.title} that name it in ${field.heading}`;
  return (
    <Box as="section" aria-label={title} mt="6">
      <HStack mb="1.5">
        <Heading as="h2" fontSize="md">
          {title}
        </Heading>
        <Text color="inkSoft">{number.format(links.total)}</Text>
      </HStack>
      <Stack gap="0" borderTopWidth="1px" borderColor="line">
        {links.entries.map((entry) => (
          <Box
            key={entry.id}
            asChild
            py="1.5"
            borderBottomWidth="1px"
            borderColor="lineSoft"
            color="damson.fg"
            textDecoration="underline"
            textUnderlineOffset="3px"
          >
            <Link to={`/records/${register.id}/${entry.id}`}>
              {recordTitle({ ...register, fields: register.fields.filter(({ key }) => key !== field.key) }, entry, cells.shown)}
            </Link>
          </Box>
        ))}
      </Stack>
      {links.total > links.entries.length && (
        <Text mt="1" color="inkSoft">
          and {number.format(links.total - links.entries.length)} more on the sheet.
        </Text>
      )}
    </Box>
  );
}
