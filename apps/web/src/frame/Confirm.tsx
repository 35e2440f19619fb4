// A modal question, only for what cannot be undone.
import { Button, CloseButton, Dialog, Portal, Text } from '@chakra-ui/react';

interface ConfirmProps {
  /** The words of the button that asks. */
  readonly ask: string;
  readonly about: string;
  readonly act: string;
  onConfirm(): void;
}

export function Confirm({ ask, about, act, onConfirm }: ConfirmProps) {
  return (
    <Dialog.Root role="alertdialog" size="sm" placement="center">
      <Dialog.Trigger asChild>
        <Button size="xs" variant="outline">
          {ask}
        </Button>
      </Dialog.Trigger>
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content>
            <Dialog.Header>
              <Dialog.Title>{ask}?</Dialog.Title>
            </Dialog.Header>
            <Dialog.Body>
              <Text>{about}</Text>
            </Dialog.Body>
            <Dialog.Footer>
              <Dialog.ActionTrigger asChild>
                <Button size="sm" variant="outline">
                  Cancel
                </Button>
              </Dialog.ActionTrigger>
              <Dialog.ActionTrigger asChild>
                <Button size="sm" colorPalette="brick" onClick={onConfirm}>
                  {act}
                </Button>
              </Dialog.ActionTrigger>
            </Dialog.Footer>
            <Dialog.CloseTrigger asChild>
              <CloseButton size="sm" aria-label="Close" />
            </Dialog.CloseTrigger>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
