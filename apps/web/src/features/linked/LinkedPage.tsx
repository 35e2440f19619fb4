// Linked sources: values from outside, each with when and how it last went.
import { Box, Button, HStack, Table, Text } from '@chakra-ui/react';
import { readsDirectly } from '@dellum/core';
import type { BuildView, LinkedView } from '@dellum/contract';
import { Link, useNavigate, useParams } from 'react-router';
import { errorWords } from '../../data/problem.js';
import { ActButton } from '../../frame/ActButton.js';
import { EmptyState, Page, Waiting } from '../../frame/Page.js';
import { useArrive, useTry } from '../../frame/useNotice.js';
import { useBuildQuery } from '../../data/buildApi.js';
import { ImpactSlip } from '../acts/ImpactSlip.js';
import { useSlipsQuery } from '../../data/sourcesApi.js';
import { useTold } from '../acts/useRegister.js';
import { useDeleteLinkedMutation, useLinkedQuery, useRefreshLinkedMutation } from '../../data/linkedApi.js';
import { LinkedForm, linkedKindWords, scheduleWords } from './LinkedForm.js';
import { moment, number } from '../../frame/written.js';

export function LinkedPage() {
  const { sourceId } = useParams();
  const { data: build, error } = useBuildQuery();
  const { data: sources, error: failed } = useLinkedQuery();
  const { data: slips } = useSlipsQuery();
  const navigate = useNavigate();
  if (!build || !sources) return <Waiting error={errorWords(error ?? failed)} />;
  const chosen = sources.find(({ id }) => id === sourceId);
  const slip = slips?.find(({ proposal }) => proposal.steps.some((step) => step.what === 'linked read'));
  return (
    <Page
      title="Linked sources"
      about="Values from files, folders, databases, services and expressions. What a refresh changes is asked about like any change."
      slip={
        slip ? (
          <ImpactSlip key={slip.id} slip={slip} build={build} />
        ) : (
          <LinkedForm key={chosen?.id ?? 'new'} source={chosen} done={(id) => void navigate(id && !chosen ? `/linked/${id}` : '/linked')} />
        )
      }
    >
      {sources.length === 0 ? (
        <EmptyState title="No linked sources yet">
          Name one at the right, choose where it reads, look at what it gives, and link it. Catalogs can then take their values from it.
        </EmptyState>
      ) : (
        <Box p="5" overflowX="auto">
          <Table.Root size="sm">
            <Table.Header>
              <Table.Row bg="transparent">
                {['Source', 'It gives', 'Values', 'How it last went', 'Feeds', ''].map((heading) => (
                  <Table.ColumnHeader key={heading} color="inkSoft" textAlign={heading === 'Values' ? 'end' : 'start'}>
                    {heading || <Box srOnly>Acts</Box>}
                  </Table.ColumnHeader>
                ))}
              </Table.Row>
            </Table.Header>
            <Table.Body>
              {sources.map((source) => (
                <LinkedRow key={source.id} source={source} build={build} chosen={source.id === sourceId} />
              ))}
            </Table.Body>
          </Table.Root>
        </Box>
      )}
    </Page>
  );
}

function LinkedRow({ source, build, chosen }: { source: LinkedView; build: BuildView; chosen: boolean }) {
  const [refresh, { isLoading }] = useRefreshLinkedMutation();
  const [remove] = useDeleteLinkedMutation();
  const told = useTold();
  const attempt = useTry();
  const arrive = useArrive();
  const catalogs = build.catalogs.filter(({ definition }) => readsDirectly(definition, 'linked', source.id));
  const drop = async () => {
    if (
      !(await attempt(
        remove(source.id)
          .unwrap()
          .then(() => true),
      ))
    )
      return;
    arrive('/linked', `The linked source ${source.name} is deleted.`);
  };
  return (
    <Table.Row bg={chosen ? 'damson.subtle' : 'transparent'} verticalAlign="top">
      <Table.Cell fontWeight="bold" color="growth.fg">
        <Link to={`/linked/${source.id}`}>{source.name}</Link>
      </Table.Cell>
      <Table.Cell>
        {linkedKindWords(source.settings.kind)}
        <Text fontSize="xs" color="inkSoft">
          read {scheduleWords(source.every)}
        </Text>
      </Table.Cell>
      <Table.Cell textAlign="end">{number.format(source.values)}</Table.Cell>
      <Table.Cell>
        {source.waiting && <Text color="amber.fg">what it brought waits for an answer</Text>}
        {source.failure ? (
          <>
            <Text color="brick.fg">{source.failure}</Text>
            <Text fontSize="xs" color="inkSoft">
              tried {source.lastTried && moment.format(new Date(source.lastTried))};{' '}
              {source.lastGood ? `the values of ${moment.format(new Date(source.lastGood))} stay` : 'it has never gone well'}
            </Text>
          </>
        ) : (
          <Text color={source.lastGood ? 'growth.fg' : 'inkSoft'}>
            {source.lastGood ? `good, ${moment.format(new Date(source.lastGood))}` : 'not read yet'}
          </Text>
        )}
      </Table.Cell>
      <Table.Cell>
        {catalogs.length === 0 && <Text color="inkSoft">no catalog yet</Text>}
        {catalogs.map(({ id, title }) => (
          <Box key={id} asChild color="damson.fg" fontWeight="bold" display="block">
            <Link to={`/catalogs/${id}`}>{title}</Link>
          </Box>
        ))}
      </Table.Cell>
      <Table.Cell>
        <HStack justify="end" gap="1.5">
          <ActButton loading={isLoading} aria-label={`Refresh ${source.name}`} onClick={() => void told(refresh(source.id).unwrap())}>
            Refresh
          </ActButton>
          <Button colorPalette="brick" aria-label={`Delete ${source.name}`} onClick={() => void drop()}>
            Delete
          </Button>
        </HStack>
      </Table.Cell>
    </Table.Row>
  );
}
