// The buttons at the end of a small form: the act that sends it, and the way out.
import { Button, HStack } from '@chakra-ui/react';
import { ActButton } from './ActButton.js';

interface FormButtonsProps {
  readonly act: string;
  readonly sending: boolean;
  cancel(): void;
}

export function FormButtons({ act, sending, cancel }: FormButtonsProps) {
  return (
    <HStack>
      <ActButton variant="solid" type="submit" size="sm" loading={sending}>
        {act}
      </ActButton>
      <Button size="sm" onClick={cancel}>
        Cancel
      </Button>
    </HStack>
  );
}
