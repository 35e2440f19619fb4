// All registers whose entries can be opened one by one.
import { Box, Heading, SimpleGrid, Text } from '@chakra-ui/react';
import { Link } from 'react-router';
import { errorWords } from '../../data/problem.js';
import { EmptyState, Page, Waiting } from '../../frame/Page.js';
import { Way } from '../../frame/Way.js';
import { useBuildQuery } from '../../data/buildApi.js';

export function RecordsPage() {
  const { data: build, error } = useBuildQuery();
  if (!build) return <Waiting error={errorWords(error)} />;
  const sheets = build.sheets.filter(({ kind }) => kind === 'entry');
  return (
    <Page title="Records" about="The same entries as on the sheets, looked for and opened one at a time.">
      {sheets.length === 0 ? (
        <EmptyState title="Nothing here yet">
          The entries of every sheet are records as well. <Way to="/sheets">See the sheets</Way>
        </EmptyState>
      ) : (
        <SimpleGrid columns={{ base: 1, md: 2, xl: 3 }} gap="4" p="5">
          {sheets.flatMap((sheet) =>
            sheet.registers.map((register) => (
              <Box
                key={register.id}
                asChild
                borderWidth="1px"
                borderColor="line"
                rounded="l3"
                p="4"
                bg="paper"
                _hover={{ borderColor: 'damson.border' }}
              >
                <Link to={`/records/${register.id}`}>
                  <Heading as="h2" fontSize="md">
                    {register.title}
                  </Heading>
                  <Text color="inkSoft">{sheet.note}</Text>
                </Link>
              </Box>
            )),
          )}
        </SimpleGrid>
      )}
    </Page>
  );
}
