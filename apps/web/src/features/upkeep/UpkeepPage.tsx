// Upkeep: what wants mending in the house, each with its cure one step away.
import { Box, Button, Heading, HStack, Stack, Text } from '@chakra-ui/react';
import type { LookAlike, ParentFinding, RangeFinding } from '@dellum/core';
import type { BuildView, Upkeep } from '@dellum/contract';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { errorWords } from '../../data/problem.js';
import { EmptyState, Page, Waiting } from '../../frame/Page.js';
import { useCureParentMutation, useItemActMutation } from '../../data/catalogsApi.js';
import { cureOf } from '../ranges/RangeFindings.js';
import { TellApart } from '../ranges/TellApart.js';
import { useCureMutation, useForgetApartMutation } from '../../data/rangesApi.js';
import { placeOfRange } from '../ranges/placeOfRange.js';
import { useBuildQuery } from '../../data/buildApi.js';
import { ImpactSlip } from '../acts/ImpactSlip.js';
import { useSlipsQuery } from '../../data/sourcesApi.js';
import { useTold } from '../acts/useRegister.js';
import { useTry } from '../../frame/useNotice.js';
import { upkeepCount, useUpkeepQuery } from '../../data/upkeepApi.js';
import { number } from '../../frame/written.js';

const mostShown = 12;

export function UpkeepPage() {
  const { data: build, error } = useBuildQuery();
  const { data: upkeep, error: failed } = useUpkeepQuery(undefined, { refetchOnMountOrArgChange: true });
  const { data: slips } = useSlipsQuery();
  if (!build || !upkeep) return <Waiting error={errorWords(error ?? failed)} />;
  const [slip] = slips ?? [];
  const nothing = upkeepCount(upkeep) + upkeep.unused.length + upkeep.columns.length === 0;
  return (
    <Page
      title="Upkeep"
      about="What wants mending, each with its cure. Nothing is done before you choose it."
      slip={slip && <ImpactSlip key={slip.id} slip={slip} build={build} />}
    >
      {upkeep.lookingAgain && (
        <Text role="status" px="5" pt="4" color="inkSoft">
          Looking through the lists again: some of this was found before the last change of them.
        </Text>
      )}
      {nothing ? (
        !upkeep.lookingAgain && (
          <EmptyState title="Nothing wants mending">
            Ranges, names and values are in order. What turns up stands here, with its cure.
          </EmptyState>
        )
      ) : (
        <Stack p="5" gap="6" maxW="860px">
          <Section title="Ranges" count={upkeep.findings.length}>
            {upkeep.findings.map((finding) => (
              <FindingRow key={`${finding.rangeId} ${finding.words}`} finding={finding} build={build} />
            ))}
          </Section>
          <Section title="Parents that almost match" count={upkeep.parents.length}>
            {upkeep.parents.map((finding) => (
              <ParentRow key={`${finding.catalogId} ${finding.words}`} finding={finding} build={build} />
            ))}
          </Section>
          <Section title="Rows whose parent is not there" count={upkeep.orphans.length}>
            {upkeep.orphans.map(({ catalogId, words, row }) => {
              const sheet = build.sheets.find(({ registers }) => registers.some(({ id }) => id === row.register));
              return (
                sheet && (
                  <Row
                    key={`${catalogId} ${words}`}
                    words={words}
                    about={titleOf(build, catalogId)}
                    to={
                      sheet.kind === 'source' ? `/sources/${sheet.id}?list=${row.register}&row=${row.ordinal + 1}` : `/sheets/${sheet.id}`
                    }
                    where="Show the row"
                  />
                )
              );
            })}
          </Section>
          <Section title="Linked sources that cannot be read" count={upkeep.failing.length}>
            {upkeep.failing.map(({ sourceId, name, failure }) => (
              <Row
                key={sourceId}
                words={`${name}: ${failure}`}
                about="The last good values stay."
                to={`/linked/${sourceId}`}
                where="Look at it"
              />
            ))}
          </Section>
          <Section title="Programs that take no message" count={upkeep.untold.length}>
            {upkeep.untold.map(({ webhookId, name, said, off }) => (
              <Row
                key={webhookId}
                words={`${name}: ${said}`}
                about={off ? 'It is told nothing any more.' : 'It is tried again.'}
                to={`/in-and-out?webhook=${webhookId}`}
                where="Look at it"
              />
            ))}
          </Section>
          <Section title="Files that came by themselves" count={upkeep.intakes.length}>
            {upkeep.intakes.map(({ intakeId, name, waits, failure }) => (
              <Row
                key={intakeId}
                words={failure === null ? name : `${name}: ${failure}`}
                about={
                  waits === 0
                    ? 'No file is taken.'
                    : `${number.format(waits)} ${waits === 1 ? 'file waits' : 'files wait'} to be looked at.`
                }
                to={`/in-and-out?intake=${intakeId}`}
                where="Look at it"
              />
            ))}
          </Section>
          <Section title="Catalogs that cannot be read" count={upkeep.faulty.length}>
            {upkeep.faulty.map(({ catalogId, title }) => (
              <Row
                key={catalogId}
                words={`How ${title} is composed cannot be read any more.`}
                about="It offers nothing until it is composed anew. It can be deleted, too."
                to={`/catalogs/${catalogId}?slip=compose`}
                where="Compose it anew"
              />
            ))}
          </Section>
          <Section title="Catalogs that offer nothing" count={upkeep.empty.length}>
            {upkeep.empty.map(({ catalogId, words }) => (
              <Row key={catalogId} words={words} to={`/catalogs/${catalogId}?slip=compose`} where="How it is composed" />
            ))}
          </Section>
          <Section title="Look-alikes" count={upkeep.alikes.reduce((sum, { groups }) => sum + groups.length, 0)}>
            {upkeep.alikes.flatMap(({ catalogId, groups }) =>
              groups.map((group) => <AlikeRow key={`${catalogId} ${group[0]!.value}`} catalogId={catalogId} group={group} build={build} />),
            )}
          </Section>
          <Section title="One thing in two catalogs, spelled otherwise" count={upkeep.between.length}>
            {upkeep.between.map(({ values }) => (
              <Row
                key={values.map(({ value }) => value).join()}
                words={values.map(({ catalogId, value }) => `“${value}” in ${titleOf(build, catalogId)}`).join(', ')}
                to={`/catalogs/${values[0]!.catalogId}?value=${encodeURIComponent(values[0]!.value)}`}
                where="Look at it"
                cure={values.length === 2 && <TellApart values={[values[0]!.value, values[1]!.value]} />}
              />
            ))}
          </Section>
          <Section title="Entries outside" count={upkeep.outside.reduce((sum, { entries }) => sum + entries, 0)}>
            {upkeep.outside.map((outside) => (
              <OutsideRow key={outside.fieldId} outside={outside} build={build} />
            ))}
          </Section>
          <Section title="Columns that want to be lists" count={upkeep.columns.length}>
            {upkeep.columns.map(({ fieldId, distinct, entries }) => {
              const place = placeOfField(build, fieldId);
              return (
                place && (
                  <Row
                    key={fieldId}
                    words={`${place.field.heading} of ${place.sheet.title}: ${number.format(distinct)} spellings in ${number.format(entries)} entries`}
                    to={`/sheets/${place.sheet.id}?field=${place.field.key}&slip=gather`}
                    where="Make it a list"
                  />
                )
              );
            })}
          </Section>
          <Section title="Values that no entry holds" count={upkeep.unused.reduce((sum, { values }) => sum + values.length, 0)}>
            {upkeep.unused.map(({ catalogId, values }) => (
              <Row
                key={catalogId}
                words={`${titleOf(build, catalogId)}: ${values.slice(0, mostShown).join(', ')}${values.length > mostShown ? ` and ${values.length - mostShown} more` : ''}`}
                to={`/catalogs/${catalogId}`}
                where="Look at it"
              />
            ))}
          </Section>
        </Stack>
      )}
      <ToldApartPairs pairs={build.toldApart} />
    </Page>
  );
}

/** Pairs that are not brought up as look-alikes any more. */
function ToldApartPairs({ pairs }: { pairs: BuildView['toldApart'] }) {
  const [forget] = useForgetApartMutation();
  const attempt = useTry();
  if (pairs.length === 0) return null;
  return (
    <Box px="5" pb="5" maxW="860px">
      <Section title="Look alike and are two things" count={pairs.length}>
        {pairs.map(({ id, values: [one, other] }) => (
          <HStack key={id} justify="space-between" py="2" borderBottomWidth="1px" borderColor="lineSoft" gap="4">
            <Text overflowWrap="anywhere">
              “{one}” and “{other}”
            </Text>
            <Button colorPalette="slate" flexShrink={0} onClick={() => void attempt(forget(id).unwrap())}>
              Look for them again
            </Button>
          </HStack>
        ))}
      </Section>
    </Box>
  );
}

/** The entry sheet and the field of an id. */
function placeOfField(build: BuildView, fieldId: string) {
  return build.sheets
    .flatMap((sheet) => sheet.registers.flatMap(({ fields }) => fields.map((field) => ({ sheet, field }))))
    .find(({ field }) => field.id === fieldId);
}

const titleOf = (build: BuildView, id: string) => build.catalogs.find((catalog) => catalog.id === id)?.title ?? '';

function Section({ title, count, children }: { title: string; count: number; children: ReactNode }) {
  if (count === 0) return null;
  return (
    <Box as="section" aria-label={title}>
      <HStack mb="1.5">
        <Heading as="h2" fontSize="md">
          {title}
        </Heading>
        <Text color="inkSoft">{number.format(count)}</Text>
      </HStack>
      <Stack gap="0" borderTopWidth="1px" borderColor="line">
        {children}
      </Stack>
    </Box>
  );
}

interface RowProps {
  readonly words: string;
  readonly to: string;
  readonly where: string;
  readonly about?: string | undefined;
  readonly cure?: ReactNode;
}

function Row({ words, to, where, about, cure }: RowProps) {
  return (
    <HStack justify="space-between" align="start" py="2" borderBottomWidth="1px" borderColor="lineSoft" gap="4">
      <Box minW="0">
        <Text overflowWrap="anywhere">{words}</Text>
        {about && (
          <Text fontSize="xs" color="inkSoft">
            {about}
          </Text>
        )}
      </Box>
      <HStack flexShrink={0} gap="2">
        <Box asChild color="damson.fg" textDecoration="underline" textUnderlineOffset="3px">
          <Link to={to}>{where}</Link>
        </Box>
        {cure}
      </HStack>
    </HStack>
  );
}

function FindingRow({ finding, build }: { finding: RangeFinding; build: BuildView }) {
  const [cure] = useCureMutation();
  const told = useTold();
  const range = build.ranges.find(({ id }) => id === finding.rangeId);
  const place = range ? placeOfRange(range, build) : { to: '/ranges', words: '' };
  const row = finding.rows[0];
  // A name that nothing uses yet may just have been given: it is not offered for deletion here.
  const cures = finding.kind === 'unused' ? undefined : finding.cure;
  return (
    <Row
      words={finding.words}
      about={[place.words, cures && `${cures.words}: ${cures.effect}`].filter(Boolean).join('. ')}
      to={row ? `${place.to}&row=${row.ordinal + 1}` : place.to}
      where={cures ? 'Show' : 'Look at it, or make a catalog of it'}
      cure={cures && <Button onClick={() => void told(cure(cureOf(finding)).unwrap())}>{cures.words}</Button>}
    />
  );
}

function ParentRow({ finding: { catalogId, words, cure }, build }: { finding: ParentFinding; build: BuildView }) {
  const [cureParent] = useCureParentMutation();
  const told = useTold();
  return (
    <Row
      words={words}
      about={titleOf(build, catalogId)}
      to={`/catalogs/${catalogId}`}
      where="Show"
      cure={<Button onClick={() => void told(cureParent({ id: catalogId, words }).unwrap())}>{cure.words}</Button>}
    />
  );
}

function AlikeRow({ catalogId, group, build }: { catalogId: string; group: LookAlike; build: BuildView }) {
  const [act] = useItemActMutation();
  const told = useTold();
  const [right, ...others] = group;
  const catalog = build.catalogs.find(({ id }) => id === catalogId);
  return (
    <>
      {others.map((other) => (
        <Row
          key={other.value}
          words={`“${other.value}” (${number.format(other.entries)}) looks like “${right!.value}” (${number.format(right!.entries)})`}
          about={`${catalog?.title ?? ''}; in brackets how many entries hold it`}
          to={`/catalogs/${catalogId}?value=${encodeURIComponent(other.value)}`}
          where="Look at it"
          cure={
            <>
              <Button
                onClick={() =>
                  void told(act({ id: catalogId, act: { path: [], value: other.value, act: 'merge', to: right!.value } }).unwrap())
                }
              >
                Merge into “{right!.value}”
              </Button>
              <TellApart values={[right!.value, other.value]} />
            </>
          }
        />
      ))}
    </>
  );
}

function OutsideRow({ outside, build }: { outside: Upkeep['outside'][number]; build: BuildView }) {
  const place = placeOfField(build, outside.fieldId);
  if (!place) return null;
  return (
    <Row
      words={`${number.format(outside.entries)} ${outside.entries === 1 ? 'entry' : 'entries'} in ${place.field.heading} of ${place.sheet.title}`}
      to={`/sheets/${place.sheet.id}?outside=${place.field.key}&field=${place.field.key}`}
      where="List them"
    />
  );
}
