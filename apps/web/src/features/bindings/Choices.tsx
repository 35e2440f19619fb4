// Choices in a popover: a list of buttons, each with a line that says what it means.
import { Box, Button, Stack, Text } from '@chakra-ui/react';

export interface Choice {
  readonly key: string;
  readonly words: string;
  readonly about?: string;
  readonly chosen: boolean;
  choose(): void;
}

export function Choices({ options }: { options: readonly Choice[] }) {
  return (
    <Stack gap="1" maxH="260px" overflow="auto">
      {options.map(({ key, words, about, chosen, choose }) => (
        <Button
          key={key}
          size="sm"
          h="auto"
          py="1.5"
          variant={chosen ? 'subtle' : 'ghost'}
          justifyContent="start"
          textAlign="start"
          whiteSpace="normal"
          aria-pressed={chosen}
          onClick={choose}
        >
          <Box>
            <Text fontWeight="bold">{words}</Text>
            {about && (
              <Text fontSize="xs" color="inkSoft" fontWeight="normal">
                {about}
              </Text>
            )}
          </Box>
        </Button>
      ))}
    </Stack>
  );
}
