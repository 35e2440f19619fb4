// The slip by which one takes the house out: with what stands in its sheets or without, with its people or without.
import { Button, Stack, Text } from '@chakra-ui/react';
import { useState } from 'react';
import { archiveAddress } from '../../data/archivesApi.js';
import { Check } from '../../frame/Check.js';
import { SlipHead } from '../../frame/SlipHead.js';
import { fetchFile } from './fetchFile.js';

export function ArchiveOutSlip({ close }: { close(): void }) {
  const [entries, setEntries] = useState(true);
  const [people, setPeople] = useState(true);
  const said = (wanted: boolean) => (wanted ? 'yes' : 'no');
  return (
    <Stack gap="4">
      <SlipHead title="Take the house out" about="A file of the house as it is now (ZIP of JSON and JSON Lines)." close={close} />
      <Check label="With the entries of its sheets; without, it is a template for another office" checked={entries} set={setEntries} />
      <Check label="With its people and who keeps what; nobody’s password goes out" checked={people} set={setPeople} />
      <Text color="inkSoft" fontSize="sm">
        History, requests, kept files and tokens stay here. A backup holds those, too.
      </Text>
      <Button
        variant="solid"
        size="sm"
        alignSelf="start"
        onClick={() => fetchFile(archiveAddress({ entries: said(entries), people: said(people) }), '')}
      >
        Download
      </Button>
    </Stack>
  );
}
