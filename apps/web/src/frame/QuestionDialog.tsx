// A modal question. It opens with the focus on the safe answer.
import { Button, CloseButton, Dialog, Portal, Text } from '@chakra-ui/react';
import { useRef } from 'react';

export interface QuestionProps {
  /** What is asked, without its question mark. */
  readonly ask: string;
  readonly about: string;
  /** The words of the button that does it. */
  readonly act: string;
  onConfirm(): void;
}

export function QuestionDialog({ ask, about, act, onConfirm, open, close }: QuestionProps & { readonly open: boolean; close(): void }) {
  const safe = useRef<HTMLButtonElement>(null);
  return (
    <Dialog.Root
      role="alertdialog"
      size="sm"
      placement="center"
      open={open}
      onOpenChange={(next) => next.open || close()}
      initialFocusEl={() => safe.current}
    >
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
              <Button ref={safe} size="sm" onClick={close}>
                Cancel
              </Button>
              <Button
                variant="solid"
                size="sm"
                colorPalette="brick"
                onClick={() => {
                  close();
                  onConfirm();
                }}
              >
                {act}
              </Button>
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
