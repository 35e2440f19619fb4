// What a clerk has asked for: each value with its entry, and what the steward answered.
import { Box, Stack, Table } from '@chakra-ui/react';
import type { BuildView, OwnRequest } from '@dellum/contract';
import { Link } from 'react-router';
import { errorWords } from '../../data/problem.js';
import { EmptyState, Page, Waiting } from '../../frame/Page.js';
import { moment } from '../../frame/written.js';
import { useOwnRequestsQuery } from '../../data/requestsApi.js';

function answerOf({ state, answer, by, word, value }: OwnRequest): string {
  const who = by ?? 'the steward';
  switch (state) {
    case 'waiting':
      return 'waits for an answer';
    case 'accepted':
      return answer === value ? `taken in by ${who}` : `taken in by ${who} as “${answer}”`;
    case 'mapped':
      return `${who} says that “${answer}” is meant; your entry has it now`;
    case 'declined':
      return `declined by ${who}${word ? `: “${word}”` : ''}`;
  }
}

/** Where the value was typed; undefined where the sheet is there no more. */
function placeOf({ registerId, field, value }: OwnRequest, build: BuildView): { words: string; to: string } | undefined {
  const sheet = build.sheets.find(({ registers }) => registers.some(({ id }) => id === registerId));
  const own = sheet?.registers.flatMap(({ fields }) => fields).find(({ key }) => key === field);
  return (
    sheet &&
    own && { words: `${own.heading} in ${sheet.title}`, to: `/sheets/${sheet.id}?holds=${field}&value=${encodeURIComponent(value)}` }
  );
}

export function OwnRequests({ build }: { build: BuildView }) {
  const { data: requests, error } = useOwnRequestsQuery();
  if (!requests) return <Waiting error={errorWords(error)} />;
  return (
    <Page title="Requests" about="Values that you asked for, and what was answered.">
      {requests.length === 0 ? (
        <EmptyState title="You have asked for nothing yet">
          Where a field lets you ask for a value that its list does not have, type the value: it stands here until it is answered.
        </EmptyState>
      ) : (
        <Stack p="5" maxW="860px">
          <Table.Root size="sm" aria-label="Your requests">
            <Table.Header>
              <Table.Row bg="transparent">
                {['Value', 'For', 'Asked', 'Answer'].map((heading) => (
                  <Table.ColumnHeader key={heading}>{heading}</Table.ColumnHeader>
                ))}
              </Table.Row>
            </Table.Header>
            <Table.Body>
              {requests.map((request) => {
                const place = placeOf(request, build);
                return (
                  <Table.Row key={request.id} bg="transparent">
                    <Table.Cell fontWeight="bold">{request.value}</Table.Cell>
                    <Table.Cell>
                      {place && (
                        <Box asChild color="damson.fg" textDecoration="underline" textUnderlineOffset="3px">
                          <Link to={place.to}>{place.words}</Link>
                        </Box>
                      )}
                    </Table.Cell>
                    <Table.Cell>{moment.format(new Date(request.at))}</Table.Cell>
                    <Table.Cell color={request.state === 'waiting' ? 'amber.fg' : request.state === 'declined' ? 'brick.fg' : 'growth.fg'}>
                      {answerOf(request)}
                    </Table.Cell>
                  </Table.Row>
                );
              })}
            </Table.Body>
          </Table.Root>
        </Stack>
      )}
    </Page>
  );
}
