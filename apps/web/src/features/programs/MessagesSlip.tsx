// The messages of a webhook, the newest first, with what was answered; one can be sent as a test.
import { Box, Button, HStack, Stack, Text } from '@chakra-ui/react';
import type { WebhookMessageView, WebhookView } from '@dellum/contract';
import { useTestWebhookMutation, useTurnOnWebhookMutation, useWebhookMessagesQuery } from '../../data/programsApi.js';
import { errorWords } from '../../data/problem.js';
import { ActButton } from '../../frame/ActButton.js';
import { Waiting } from '../../frame/Page.js';
import { SlipHead } from '../../frame/SlipHead.js';
import { useNotice, useTry } from '../../frame/useNotice.js';
import { exactMoment, moment } from '../../frame/written.js';

/** So often the messages are read anew while one looks at them; milliseconds. */
export const lookEvery = 3000;

export function MessagesSlip({ webhook, close }: { webhook: WebhookView; close(): void }) {
  const { id, name, off } = webhook;
  const { data: messages, error } = useWebhookMessagesQuery(id, { refetchOnMountOrArgChange: true, pollingInterval: lookEvery });
  const [test, { isLoading }] = useTestWebhookMutation();
  const [turnOn] = useTurnOnWebhookMutation();
  const attempt = useTry();
  const notice = useNotice();
  const tested = async () => {
    const sent = await attempt(test(id).unwrap());
    if (!sent) return;
    const words = sent.said ? ` It answered: ${sent.said}` : '';
    if (sent.state === 'taken') notice('done', `${name} has taken the test.${words}`);
    else notice('refused', `${name} has not taken the test.${words}`);
  };
  const turnedOn = async () => {
    if ((await attempt(turnOn(id).unwrap())) !== undefined) notice('done', `${name} is told again.`);
  };
  return (
    <Stack gap="3" role="region" aria-label={`Messages of ${name}`}>
      <SlipHead title={name} about={`What was sent to ${webhook.receiver}, and what it answered.`} close={close} />
      {off && (
        <Text color="brick.fg">
          Switched off {moment.format(new Date(off))}, since no message was taken. What it missed is told in one message when it is turned
          on.
        </Text>
      )}
      <HStack gap="2">
        <ActButton loading={isLoading} onClick={() => void tested()}>
          Send a test
        </ActButton>
        {off && (
          <Button variant="solid" onClick={() => void turnedOn()}>
            Turn it on
          </Button>
        )}
      </HStack>
      {!messages ? (
        <Waiting error={errorWords(error)} />
      ) : messages.length === 0 ? (
        <Text>Nothing was sent yet. A test shows whether the program hears.</Text>
      ) : (
        <Stack as="ul" listStyle="none" gap="0" aria-label="Messages">
          {messages.map((message) => (
            <Message key={message.id} message={message} />
          ))}
        </Stack>
      )}
    </Stack>
  );
}

function Message({ message }: { message: WebhookMessageView }) {
  return (
    <Box as="li" borderTopWidth="1px" borderColor="lineSoft" py="2" overflowWrap="anywhere">
      <HStack justify="space-between" align="start" gap="3">
        <Text>{message.kind === 'test' ? 'Test' : 'Something changed'}</Text>
        <Text color={message.state === 'taken' ? 'growth.fg' : message.state === 'waits' ? 'amber.fg' : 'brick.fg'} flexShrink={0}>
          {message.state}
        </Text>
      </HStack>
      <Text fontSize="xs" color="inkSoft">
        {exactMoment.format(new Date(message.at))}
        {message.tries > 1 && `; sent ${message.tries} times`}
        {message.next && message.tries > 0 && `; again ${moment.format(new Date(message.next))}`}
      </Text>
      {message.said !== null && <Text fontSize="xs">Answer: {message.said}</Text>}
    </Box>
  );
}
