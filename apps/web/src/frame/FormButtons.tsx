// The buttons at the end of a small form: the act that sends it, and the way out.
import { Button, HStack } from '@chakra-ui/react';

interface FormButtonsProps {
  readonly act: string;
  readonly sending: boolean;
  cancel(): void;
}

export function FormButtons({ act, sending, cancel }: FormButtonsProps) {
  return (
    <HStack>
      <Button variant="solid" type="submit" size="sm" loading={sending}>
        {act}
      </Button>
      <Button size="sm" onClick={cancel}>
        Cancel
      </Button>
    </HStack>
  );
}
