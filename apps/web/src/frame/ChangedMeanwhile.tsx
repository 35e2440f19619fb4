// Somebody else has changed what one is half-way through changing: said at once, with the choice between theirs and one's own.
import { Box, Button, HStack, Text } from '@chakra-ui/react';

interface ChangedMeanwhileProps {
  /** A sentence: what somebody else has done. */
  readonly words: string;
  startFromTheirs(): void;
  keepMine(): void;
}

export function ChangedMeanwhile({ words, startFromTheirs, keepMine }: ChangedMeanwhileProps) {
  return (
    <Box role="alert" bg="amber.subtle" color="amber.fg" rounded="l2" px="3" py="2">
      <Text>{words} What you see here is yours, and is not saved.</Text>
      <HStack mt="1.5">
        <Button onClick={startFromTheirs}>Start from theirs</Button>
        <Button onClick={keepMine}>Keep mine</Button>
      </HStack>
    </Box>
  );
}
