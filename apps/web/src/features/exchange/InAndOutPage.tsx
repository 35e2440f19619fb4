// In and out: the files that left the house and came back, and the programs that come and go by a token.
import { Heading, Stack, Text } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { downloadKept } from '@dellum/contract';
import { useBuildQuery } from '../../data/buildApi.js';
import { useDownloadsQuery } from '../../data/downloadsApi.js';
import { useIntakesQuery } from '../../data/intakesApi.js';
import { useWebhooksQuery } from '../../data/programsApi.js';
import { useReturnedFilesQuery } from '../../data/returnedApi.js';
import { useMeQuery } from '../../data/sessionApi.js';
import { Page, Waiting } from '../../frame/Page.js';
import { usePanel } from '../../frame/usePanel.js';
import { Way } from '../../frame/Way.js';
import { IntakeForm } from '../intakes/IntakeForm.js';
import { Intakes } from '../intakes/Intakes.js';
import { IntakeSlip } from '../intakes/IntakeSlip.js';
import { lookEvery, MessagesSlip } from '../programs/MessagesSlip.js';
import { Programs } from '../programs/Programs.js';
import { Told } from '../programs/Told.js';
import { TokenSlip } from '../programs/TokenSlip.js';
import { WebhookSlip } from '../programs/WebhookSlip.js';
import { ArchiveOutSlip } from './ArchiveOutSlip.js';
import { Archives } from './Archives.js';
import { FilesIn } from './FilesIn.js';
import { FilesOut } from './FilesOut.js';
import { ReturnedDrop } from './ReturnedDrop.js';

const panels = ['new-token', 'new-webhook', 'webhook', 'house-out', 'new-intake', 'intake'] as const;
const hasPanel = (params: URLSearchParams) => panels.some((name) => params.has(name));

/** `adoptions`: houses out of files, as they are begun and listed. */
export function InAndOutPage({ adoptions }: { readonly adoptions: ReactNode }) {
  const { data: build } = useBuildQuery();
  const { data: me } = useMeQuery();
  const { data: files } = useDownloadsQuery(undefined, { refetchOnMountOrArgChange: true });
  const [address, show] = usePanel(hasPanel);
  // Whether a message is taken while one looks at them is told by nothing but asking.
  const { data: told } = useWebhooksQuery(undefined, { pollingInterval: address.has('webhook') ? lookEvery : 0 });
  const { data: intakes } = useIntakesQuery(undefined, { pollingInterval: address.has('intake') ? lookEvery : 0 });
  const { data: came } = useReturnedFilesQuery(undefined, { refetchOnMountOrArgChange: true });
  if (!build || !me || !files || !told || !came || !intakes) return <Waiting />;
  const open = (name?: (typeof panels)[number], value = '') =>
    show(Object.fromEntries(panels.map((panel) => [panel, panel === name ? value : undefined])));
  const close = () => open();
  const look = (id: string) => open('webhook', id);
  const lookAt = (id: string) => open('intake', id);
  const intake = intakes.find(({ id }) => id === address.get('intake'));
  const webhook = told.webhooks.find(({ id }) => id === address.get('webhook'));
  return (
    <Page
      title="In and out"
      about="Files that left the house or came back, and programs that come and go by themselves."
      slip={
        (address.has('new-token') && <TokenSlip build={build} me={me} close={close} />) ||
        (address.has('house-out') && <ArchiveOutSlip close={close} />) ||
        (address.has('new-webhook') && <WebhookSlip build={build} receivers={told.receivers} close={close} look={look} />) ||
        (webhook && <MessagesSlip key={webhook.id} webhook={webhook} close={close} />) ||
        (address.has('new-intake') && <IntakeForm build={build} close={close} done={({ id }) => lookAt(id)} />) ||
        (intake && <IntakeSlip key={intake.id} build={build} intake={intake} close={close} />)
      }
    >
      <Stack p="5" gap="8" maxW="720px">
        <Stack as="section" aria-label="Files that went out" gap="2">
          <Heading as="h2" fontSize="md">
            Files that went out
          </Heading>
          <Text color="inkSoft">What anybody has downloaded within {downloadKept} days. A sheet is downloaded on its own page.</Text>
          {files.length === 0 ? (
            <Text>
              Nothing was downloaded. <Way to="/sheets">See the sheets</Way>
            </Text>
          ) : (
            <FilesOut files={files} />
          )}
        </Stack>
        <Stack as="section" aria-label="Files that came" gap="2">
          <Heading as="h2" fontSize="md">
            Files that came
          </Heading>
          <Text color="inkSoft">A workbook that was downloaded to be filled in, or a table of new entries.</Text>
          <ReturnedDrop />
          <FilesIn files={came} />
        </Stack>
        <Intakes build={build} add={() => open('new-intake')} look={lookAt} />
        {adoptions}
        <Archives takeOut={() => open('house-out')} />
        <Programs build={build} me={me} add={() => open('new-token')} />
        <Told build={build} add={() => open('new-webhook')} look={look} />
      </Stack>
    </Page>
  );
}
