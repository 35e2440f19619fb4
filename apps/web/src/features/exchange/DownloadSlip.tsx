// The slip by which one downloads a sheet: which entries, in which format, and what programs that open the file cannot do.
import { Box, Button, Progress, Stack, Text } from '@chakra-ui/react';
import { lostOf } from '@dellum/core';
import { downloadKept, type DownloadFormat, type DownloadView, type FieldView, type RegisterView } from '@dellum/contract';
import { useState } from 'react';
import {
  fileAddress,
  followDownload,
  useBeginDownloadMutation,
  useDownloadsQuery,
  useRemoveDownloadMutation,
  type WantedFile,
} from '../../data/downloadsApi.js';
import { useAppDispatch } from '../../data/store.js';
import { ActButton } from '../../frame/ActButton.js';
import { Check } from '../../frame/Check.js';
import { SlipHead } from '../../frame/SlipHead.js';
import { useNotice, useTry } from '../../frame/useNotice.js';
import { entries, number } from '../../frame/written.js';
import { Choice } from '../../frame/Choice.js';
import { fetchFile } from './fetchFile.js';
import { FilesOut } from './FilesOut.js';

const formats: readonly (readonly [format: DownloadFormat, words: string, about: string])[] = [
  ['workbook', 'Workbook with its drop-downs', 'for calculating programs (OOXML, .xlsx)'],
  ['opendocument', 'The same as OpenDocument', 'for programs of that standard (ODF, .ods)'],
  ['csv', 'Table of plain values', 'for everything else (CSV)'],
  ['tables', 'Tables with their description', 'for programs that check them: sheet and lists (CSVW, .zip)'],
  ['json lines', 'An entry a line', 'for programs (JSON Lines)'],
];

/** Some entries or fields of a sheet, or all in another order: what is proposed before all of them. */
export interface Some {
  readonly words: string;
  readonly about: string;
  readonly wanted: Pick<WantedFile, 'arranged' | 'found'>;
  /** The fields that are in it. */
  readonly fields: readonly FieldView[];
}

interface DownloadSlipProps {
  readonly register: RegisterView;
  readonly some: Some | undefined;
  close(): void;
}

export function DownloadSlip({ register, some, close }: DownloadSlipProps) {
  const [all, setAll] = useState(false);
  const [wanted, setWanted] = useState<Omit<WantedFile, keyof Some['wanted']>>({
    format: 'workbook',
    labels: true,
    guarded: false,
    comesBack: false,
  });
  const chosen = all ? undefined : some;
  const [underWay, setUnderWay] = useState<DownloadView>();
  const [begin, { isLoading }] = useBeginDownloadMutation();
  const [remove] = useRemoveDownloadMutation();
  const dispatch = useAppDispatch();
  const attempt = useTry();
  const notice = useNotice();
  const set = (part: Partial<typeof wanted>) => setWanted({ ...wanted, ...part });
  const shown = chosen?.fields ?? register.fields;

  const isBook = wanted.format === 'workbook' || wanted.format === 'opendocument';
  const comesBack = wanted.comesBack && isBook;

  const download = async () => {
    const begun = await attempt(
      begin({ registerId: register.id, wanted: { ...wanted, comesBack, ...(chosen?.wanted ?? { arranged: false }) } }).unwrap(),
    );
    if (!begun) return;
    const done = await dispatch(followDownload(begun, setUnderWay));
    setUnderWay(undefined);
    if (!done) return;
    fetchFile(fileAddress(done.id), done.name);
    notice('done', `${done.name} has ${entries(done.done)}.`);
  };
  return (
    <Stack gap="4">
      <SlipHead title={`Download ${register.title}`} about="A file of what stands here now." close={close} />
      <Choice label="Format" value={wanted.format} options={formats} choose={(format) => set({ format: format as DownloadFormat })} />
      {some && (
        <Choice
          label="Entries"
          value={all ? 'all' : 'some'}
          options={[
            ['some', some.words, some.about],
            ['all', 'All of them', 'every entry and field'],
          ]}
          choose={(which) => setAll(which === 'all')}
        />
      )}
      {wanted.format !== 'json lines' && (
        <Check label="Names instead of codes, where a list shows them" checked={wanted.labels} set={(labels) => set({ labels })} />
      )}
      {wanted.format === 'csv' && (
        <Check
          label="It will be opened in a calculating program: a text that looks like a formula begins with an apostrophe"
          checked={wanted.guarded}
          set={(guarded) => set({ guarded })}
        />
      )}
      {isBook && register.enters && (
        <Check
          label="It is filled in and brought back: each row says, in a hidden column, which entry it is"
          checked={wanted.comesBack}
          set={(back) => set({ comesBack: back })}
        />
      )}
      {isBook && <LostThere fields={shown} all={register.fields} />}
      {underWay ? (
        <Stack gap="2">
          <Text>
            {number.format(underWay.done)} of {entries(underWay.total)} written
          </Text>
          <Progress.Root
            value={underWay.total === 0 ? null : underWay.done}
            max={Math.max(1, underWay.total)}
            size="xs"
            colorPalette="growth"
            aria-label="Written"
          >
            <Progress.Track>
              <Progress.Range />
            </Progress.Track>
          </Progress.Root>
          <Button size="sm" alignSelf="start" onClick={() => void attempt(remove(underWay.id).unwrap())}>
            Stop
          </Button>
        </Stack>
      ) : (
        <ActButton variant="solid" size="sm" alignSelf="start" loading={isLoading} onClick={() => void download()}>
          Download
        </ActButton>
      )}
      <Past registerId={register.id} />
    </Stack>
  );
}

function LostThere({ fields, all }: { fields: readonly FieldView[]; all: readonly FieldView[] }) {
  const lost = fields.flatMap((field) =>
    lostOf(field, fields.length < all.length ? fields : all).map((what) => `${field.heading} ${what}.`),
  );
  if (lost.length === 0) return null;
  return (
    <Box role="region" aria-label="What is not done there" p="3" borderWidth="1px" borderColor="line" bg="paper" rounded="l3">
      <Text fontWeight="bold" mb="1">
        What is not done there as here
      </Text>
      <Stack as="ul" gap="1" listStyleType="none" fontSize="sm">
        {lost.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </Stack>
    </Box>
  );
}

/** The files of this sheet that are still kept. */
function Past({ registerId }: { registerId: string }) {
  const { data: downloads = [] } = useDownloadsQuery();
  const done = downloads.filter((download) => download.registerId === registerId && download.state === 'done');
  if (done.length === 0) return null;
  return (
    <Box role="region" aria-label="Files of this sheet">
      <Text fontWeight="bold">Files of this sheet</Text>
      <Text color="inkSoft" fontSize="xs" mb="1">
        They are kept for {downloadKept} days.
      </Text>
      <FilesOut files={done} />
    </Box>
  );
}
