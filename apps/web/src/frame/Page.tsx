// The shape of every page: title, one line that says what this is, the work, and at the right a slip.
import { Box, Flex, Heading, HStack, Text } from '@chakra-ui/react';
import { useEffect, type ReactNode } from 'react';
import { useMeQuery } from '../data/sessionApi.js';
import { Scrolling } from './Scrolling.js';

interface PageProps {
  readonly title: string;
  /** One line that says what this is. */
  readonly about: ReactNode;
  /** The lineage strip or a row of chips under the title. */
  readonly strip?: ReactNode;
  readonly actions?: ReactNode;
  /** The side panel for the thing selected. */
  readonly slip?: ReactNode;
  readonly children: ReactNode;
}

export function Page({ title, about, strip, actions, slip, children }: PageProps) {
  const { data: me } = useMeQuery();
  const house = me?.house.name ?? 'Dellum';
  useEffect(() => {
    document.title = `${title} · ${house}`;
  }, [title, house]);
  return (
    <Flex direction="column" h="100%" minH="0">
      <Box px="5" pt="4" pb="3" borderBottomWidth="1px" borderColor="line" flexShrink={0}>
        <HStack justify="space-between" align="start" gap="4" wrap="wrap">
          {/* A long line about the page goes on below itself, beside the buttons, while there is room for it. */}
          <Box flex="1 1 320px" minW="0">
            <Heading as="h1" fontSize="xl" lineHeight="1.3" overflowWrap="anywhere">
              {title}
            </Heading>
            <Text color="inkSoft">{about}</Text>
          </Box>
          {actions && (
            <HStack className="not-printed" gap="2" wrap="wrap">
              {actions}
            </HStack>
          )}
        </HStack>
        {strip && <Box mt="2.5">{strip}</Box>}
      </Box>
      <Flex flex="1" minH="0" direction={{ base: 'column', lg: 'row' }} overflow={{ base: 'auto', lg: 'hidden' }}>
        <Scrolling label={title} flex="1" minW="0" minH={{ base: '320px', lg: '0' }} bg="card">
          {children}
        </Scrolling>
        {slip && (
          <Box
            as="aside"
            aria-label="Panel"
            w={{ base: '100%', lg: '330px' }}
            flexShrink={0}
            bg="card"
            borderLeftWidth={{ base: '0', lg: '1px' }}
            borderTopWidth={{ base: '1px', lg: '0' }}
            borderColor="line"
            overflow="auto"
            p="4.5"
          >
            {slip}
          </Box>
        )}
      </Flex>
    </Flex>
  );
}

/** Says what to do first where there is nothing yet. */
export function EmptyState({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box m="6" p="6" maxW="520px" borderWidth="1px" borderStyle="dashed" borderColor="line" rounded="l3">
      <Heading as="h2" fontSize="lg" mb="1">
        {title}
      </Heading>
      <Box color="inkSoft">{children}</Box>
    </Box>
  );
}

/** A page that waits for its data, or says why they do not come. */
export function Waiting({ error }: { error?: string | undefined }) {
  return (
    <Box p="6" color={error ? 'brick.fg' : 'inkSoft'} role={error ? 'alert' : 'status'}>
      {error ?? 'Loading …'}
    </Box>
  );
}
