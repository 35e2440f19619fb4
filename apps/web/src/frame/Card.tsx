// A page of its own, before one is inside.
import { Box, Flex, Heading, HStack, Text } from '@chakra-ui/react';
import { useEffect, type ReactNode } from 'react';
import { Mark } from '../theme/Mark.js';

export function Card({ title, about, children }: { title: string; about: string; children: ReactNode }) {
  useEffect(() => {
    document.title = `${title} · Dellum`;
  }, [title]);
  return (
    <Flex minH="100%" align="center" justify="center" p="4">
      <Box as="main" bg="card" borderWidth="1px" borderColor="line" rounded="l3" p="7" w="100%" maxW="420px" shadow="lifted">
        <HStack color="damson.fg" gap="2" mb="4">
          <Mark />
          <Text fontWeight="bold" fontSize="lg">
            Dellum
          </Text>
        </HStack>
        <Heading as="h1" fontSize="xl">
          {title}
        </Heading>
        <Text color="inkSoft" mb="5">
          {about}
        </Text>
        {children}
      </Box>
    </Flex>
  );
}
