// The slip by which one downloads the values of a catalog.
import { Button, Stack } from '@chakra-ui/react';
import type { CatalogView, ValueFormatName } from '@dellum/contract';
import { useState } from 'react';
import { catalogFileAddress } from '../../data/downloadsApi.js';
import { Check } from '../../frame/Check.js';
import { SlipHead } from '../../frame/SlipHead.js';
import { Choice } from '../../frame/Choice.js';
import { fetchFile } from './fetchFile.js';

const formats: readonly (readonly [format: ValueFormatName, words: string, about: string])[] = [
  ['csv', 'Table of values', 'for calculating programs and everything else (CSV)'],
  ['turtle', 'Concepts', 'for programs that keep vocabularies (SKOS, Turtle)'],
  ['jsonld', 'The same as JSON-LD', 'for programs of that standard (SKOS, JSON-LD)'],
  ['json', 'Values for a program', 'as programs with an access token read them (JSON)'],
];

export function CatalogFileSlip({ catalog, close }: { catalog: CatalogView; close(): void }) {
  const [format, setFormat] = useState<ValueFormatName>('csv');
  const [all, setAll] = useState(false);
  const [guarded, setGuarded] = useState(true);
  const wanted = { format, all, guarded: guarded && format === 'csv' };
  return (
    <Stack gap="4">
      <SlipHead title={`Download ${catalog.title}`} about="A file of what it offers today." close={close} />
      <Choice label="Format" value={format} options={formats} choose={(one) => setFormat(one as ValueFormatName)} />
      <Check label="What is retired or not valid today, too" checked={all} set={setAll} />
      {format === 'csv' && (
        <Check
          label="It will be opened in a calculating program: a text that looks like a formula begins with an apostrophe"
          checked={guarded}
          set={setGuarded}
        />
      )}
      <Button variant="solid" size="sm" alignSelf="start" onClick={() => fetchFile(catalogFileAddress(catalog.id, wanted), catalog.title)}>
        Download
      </Button>
    </Stack>
  );
}
