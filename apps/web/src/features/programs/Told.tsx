// Programs that are told by a webhook: each with what it is told, and whether it hears it.
import { Box, Button, Heading, HStack, Stack, Text } from '@chakra-ui/react';
import type { BuildView, WebhookView } from '@dellum/contract';
import { useRemoveWebhookMutation, useWebhooksQuery } from '../../data/programsApi.js';
import { Confirm } from '../../frame/Confirm.js';
import { useNotice, useTry } from '../../frame/useNotice.js';
import { moment } from '../../frame/written.js';
import { titlesOf } from './Chosen.js';

interface ToldProps {
  readonly build: BuildView;
  /** Opens the form of a new webhook. */
  add(): void;
  /** Opens the messages of one. */
  look(id: string): void;
}

export function Told({ build, add, look }: ToldProps) {
  // Whether messages are taken is told by nothing but asking.
  const { data } = useWebhooksQuery(undefined, { refetchOnMountOrArgChange: true });
  return (
    <Stack as="section" aria-label="Programs that are told" gap="2">
      <Heading as="h2" fontSize="md">
        Programs that are told
      </Heading>
      <Text color="inkSoft">
        When something changes, a message goes to an address (a webhook). It says where something has changed and holds nothing of it: the
        program asks for that by its token.
      </Text>
      {data?.webhooks.map((webhook) => (
        <Webhook key={webhook.id} webhook={webhook} build={build} look={look} />
      ))}
      {data?.webhooks.length === 0 && <Text>No program is told yet.</Text>}
      {data?.receivers.length === 0 ? (
        <Text>No address may be told. Whoever runs the server allows them (DELLUM_WEBHOOKS).</Text>
      ) : (
        <Button alignSelf="start" onClick={add}>
          New webhook
        </Button>
      )}
    </Stack>
  );
}

function Webhook({ webhook, build, look }: { webhook: WebhookView } & Pick<ToldProps, 'build' | 'look'>) {
  const [remove] = useRemoveWebhookMutation();
  const attempt = useTry();
  const notice = useNotice();
  const { id, name } = webhook;
  const removed = async () => {
    if ((await attempt(remove(id).unwrap())) !== undefined) notice('done', `${name} is told nothing any more.`);
  };
  return (
    <HStack justify="space-between" align="start" borderTopWidth="1px" borderColor="line" pt="2">
      <Box minW="0" overflowWrap="anywhere">
        <Text>
          <b>{name}</b> {toldWords(webhook)}
        </Text>
        <Text fontSize="xs" color="inkSoft">
          {hears(webhook, build)} Made by {webhook.by ?? 'somebody who is not there any more'}.
        </Text>
        {webhook.failing && (
          <Text fontSize="xs" color="brick.fg">
            Not taken since {moment.format(new Date(webhook.failing.since))}: {webhook.failing.said}
          </Text>
        )}
      </Box>
      <HStack gap="2" flexShrink={0}>
        <Button aria-label={`Messages of ${name}`} onClick={() => look(id)}>
          Messages
        </Button>
        <Confirm
          ask={`Remove the webhook ${name}`}
          short="Remove"
          about={`${name} is told nothing from now on, and its messages are forgotten. A new webhook can be made at any time.`}
          act="Remove the webhook"
          onConfirm={() => void removed()}
        />
      </HStack>
    </HStack>
  );
}

const toldWords = ({ off, lastTold }: WebhookView): string => {
  if (off) return `is switched off since ${moment.format(new Date(off))}`;
  return lastTold ? `was told last ${moment.format(new Date(lastTold))}` : 'was told nothing yet';
};

/** "Told at Harbour board of changes in Pilots, Crane hours." */
function hears(webhook: WebhookView, build: BuildView): string {
  const { catalogs, sheets } = titlesOf(build, webhook);
  const titles = [...catalogs, ...sheets];
  return `Told at ${webhook.receiver} of changes in ${titles.length === 0 ? 'nothing that is still there' : titles.join(', ')}.`;
}
