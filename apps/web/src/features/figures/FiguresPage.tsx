// The figures that are kept, and a new one.
import { Box, Button, Heading, SimpleGrid, Text } from '@chakra-ui/react';
import { figureSentence } from '@dellum/core';
import { Link } from 'react-router';
import { errorWords } from '../../data/problem.js';
import { EmptyState, Page, Waiting } from '../../frame/Page.js';
import { useBuildQuery } from '../../data/buildApi.js';
import { useFiguresQuery } from '../../data/figuresApi.js';
import { reachable, reachedBy, registersOf } from './paths.js';

export function FiguresPage() {
  const { data: build, error } = useBuildQuery();
  const { data: figures, error: failed } = useFiguresQuery();
  if (!build || !figures) return <Waiting error={errorWords(error ?? failed)} />;
  return (
    <Page
      title="Figures"
      about="Entries counted and summed by their values, as they are at this moment."
      actions={
        <Button variant="solid" asChild>
          <Link to="/figures/new">New figure</Link>
        </Button>
      }
    >
      {figures.length === 0 ? (
        <EmptyState title="No figure is saved yet">
          Make one with “New figure”, and save it under a name; everybody of the house finds it here.
        </EmptyState>
      ) : (
        <SimpleGrid columns={{ base: 1, md: 2, xl: 3 }} gap="4" p="5">
          {figures.map(({ id, title, definition, by }) => {
            const register = registersOf(build).find((known) => known.id === definition.registerId);
            const paths = register ? reachable(build, register) : [];
            return (
              <Box
                key={id}
                asChild
                borderWidth="1px"
                borderColor="line"
                rounded="l3"
                p="4"
                bg="paper"
                _hover={{ borderColor: 'damson.border' }}
              >
                <Link to={`/figures/${id}`}>
                  <Heading as="h2" fontSize="md">
                    {title}
                  </Heading>
                  <Text color="inkSoft">
                    {figureSentence(definition, register?.title ?? 'a sheet', (path) => reachedBy(paths, path)?.name ?? path.field)}
                  </Text>
                  <Text mt="2" fontSize="xs" color="inkSoft">
                    saved by {by}
                  </Text>
                </Link>
              </Box>
            );
          })}
        </SimpleGrid>
      )}
    </Page>
  );
}
