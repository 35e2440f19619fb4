// In and out: the files that left the house, and the programs that come and go by a token.
import { Heading, Stack, Text } from '@chakra-ui/react';
import { downloadKept } from '@dellum/contract';
import { useBuildQuery } from '../../data/buildApi.js';
import { useDownloadsQuery } from '../../data/downloadsApi.js';
import { useMeQuery } from '../../data/sessionApi.js';
import { Page, Waiting } from '../../frame/Page.js';
import { usePanel } from '../../frame/usePanel.js';
import { Way } from '../../frame/Way.js';
import { Programs } from '../programs/Programs.js';
import { TokenSlip } from '../programs/TokenSlip.js';
import { FilesOut } from './FilesOut.js';

const hasPanel = (params: URLSearchParams) => params.has('new-token');

export function InAndOutPage() {
  const { data: build } = useBuildQuery();
  const { data: me } = useMeQuery();
  const { data: files } = useDownloadsQuery(undefined, { refetchOnMountOrArgChange: true });
  const [address, show] = usePanel(hasPanel);
  if (!build || !me || !files) return <Waiting />;
  const close = () => show({ 'new-token': undefined });
  return (
    <Page
      title="In and out"
      about="Files that left the house, and programs that come and go by themselves."
      slip={address.has('new-token') && <TokenSlip build={build} me={me} close={close} />}
    >
      <Stack p="5" gap="8" maxW="720px">
        <Stack as="section" aria-label="Files" gap="2">
          <Heading as="h2" fontSize="md">
            Files
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
        <Programs build={build} me={me} add={() => show({ 'new-token': '' })} />
      </Stack>
    </Page>
  );
}
