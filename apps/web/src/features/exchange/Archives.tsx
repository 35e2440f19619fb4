// The whole house as a file: taken out, or another one brought in.
import { Button, Heading, HStack, Stack, Text } from '@chakra-ui/react';
import { useNavigate } from 'react-router';
import { sendArchive, useLookAtTemplateMutation, useTemplatesQuery } from '../../data/archivesApi.js';
import { useAppDispatch } from '../../data/store.js';
import { ActButton } from '../../frame/ActButton.js';
import { useTry } from '../../frame/useNotice.js';
import { countsWords } from './archiveWords.js';
import { FileDrop } from '../../frame/FileDrop.js';

export function Archives({ takeOut }: { takeOut(): void }) {
  const { data: templates = [] } = useTemplatesQuery();
  const [lookAt] = useLookAtTemplateMutation();
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const attempt = useTry();
  const begin = async (key: string) => {
    const look = await attempt(lookAt(key).unwrap());
    if (look) await navigate(`/archive/${look.look}`);
  };
  return (
    <Stack as="section" aria-label="The whole house" gap="2">
      <HStack justify="space-between" wrap="wrap">
        <Heading as="h2" fontSize="md">
          The whole house
        </Heading>
        <Button size="xs" onClick={takeOut}>
          Take the house out
        </Button>
      </HStack>
      <Text color="inkSoft">
        Its sheets, lists, catalogs, forms and figures in one file: to keep, to move, or for another office to begin with.
      </Text>
      <FileDrop
        label="House archive"
        what="a house archive"
        about="Or a list of concepts (SKOS, as Turtle or JSON-LD), or what entries must be (JSON Schema). You look at what it would bring before anything is stored"
        instead="Whoever runs the server brings it in: npm run archive -- in FILE"
        bring={async ([file]) => `/archive/${(await dispatch(sendArchive(file!))).look}`}
      />
      {templates.length > 0 && (
        <Stack as="ul" gap="2" listStyleType="none" aria-label="Templates">
          {templates.map(({ key, name, counts }) => (
            <HStack as="li" key={key} justify="space-between" gap="3">
              <Text>
                {name}
                <Text as="span" display="block" color="inkSoft" fontSize="xs">
                  A template: {countsWords(counts)}
                </Text>
              </Text>
              <ActButton size="xs" flexShrink={0} onClick={() => void begin(key)}>
                Look at the template
              </ActButton>
            </HStack>
          ))}
        </Stack>
      )}
    </Stack>
  );
}
