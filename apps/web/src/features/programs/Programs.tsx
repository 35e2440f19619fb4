// Other programs: the access tokens of the house, what each opens and when it was used last.
import { Box, Button, Heading, HStack, Stack, Text } from '@chakra-ui/react';
import { format } from '@dellum/core';
import type { AccessTokenView, BuildView, Me } from '@dellum/contract';
import { useAccessTokensQuery, useEndTokenMutation } from '../../data/programsApi.js';
import { Confirm } from '../../frame/Confirm.js';
import { useNotice, useTry } from '../../frame/useNotice.js';
import { moment } from '../../frame/written.js';
import { titlesOf } from './Chosen.js';

interface ProgramsProps {
  readonly build: BuildView;
  readonly me: Me;
  /** Opens the form of a new token. */
  add(): void;
}

export function Programs({ build, me, add }: ProgramsProps) {
  // When a program was here last is told by nothing but asking.
  const { data: tokens } = useAccessTokensQuery(undefined, { refetchOnMountOrArgChange: true });
  return (
    <Stack as="section" aria-label="Other programs" gap="2">
      <Heading as="h2" fontSize="md">
        Other programs
      </Heading>
      <Text color="inkSoft">
        A program with an access token reads values as they are now, has its rows judged by the rules here, and stores what is taken.
      </Text>
      {tokens?.map((token) => (
        <Token key={token.id} token={token} build={build} me={me} />
      ))}
      {tokens?.length === 0 && <Text>No program has a token yet.</Text>}
      <Button alignSelf="start" onClick={add}>
        New access token
      </Button>
    </Stack>
  );
}

function Token({ token, build, me }: { token: AccessTokenView } & Pick<ProgramsProps, 'build' | 'me'>) {
  const [end] = useEndTokenMutation();
  const attempt = useTry();
  const notice = useNotice();
  const ended = async () => {
    if ((await attempt(end(token.id).unwrap())) !== undefined) notice('done', `${token.name} gets no answer any more.`);
  };
  return (
    <HStack justify="space-between" align="start" borderTopWidth="1px" borderColor="line" pt="2">
      <Box minW="0" overflowWrap="anywhere" color={token.over ? 'inkSoft' : undefined}>
        <Text>
          <b>{token.name}</b> {token.over ? 'is over' : `works until ${format('date', token.until, me.house.locale)}`}
        </Text>
        <Text fontSize="xs" color="inkSoft">
          {opens(token, build)} Made by {token.by ?? 'somebody who is not there any more'};{' '}
          {token.lastUsed ? `used last ${moment.format(new Date(token.lastUsed))}` : 'not used yet'}.
        </Text>
      </Box>
      {!token.over && (
        <Confirm
          ask={`End the token of ${token.name}`}
          short="End"
          about={`${token.name} gets no answer from now on. What it has stored stays. A new token can be made at any time.`}
          act="End the token"
          onConfirm={() => void ended()}
        />
      )}
    </HStack>
  );
}

/** "Reads Berths, Goods; enters data in Log." */
function opens(token: AccessTokenView, build: BuildView): string {
  const { catalogs, sheets } = titlesOf(build, token);
  const parts = [
    ...(catalogs.length > 0 ? [`reads ${catalogs.join(', ')}`] : []),
    ...(sheets.length > 0 ? [`${token.writes ? 'enters data in' : 'has rows checked for'} ${sheets.join(', ')}`] : []),
  ];
  const words = parts.length === 0 ? 'opens nothing that is still there' : parts.join('; ');
  return `${words[0]!.toUpperCase()}${words.slice(1)}.`;
}
