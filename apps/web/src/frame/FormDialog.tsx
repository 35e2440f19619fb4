// A small dialog in which something is set: its title, what is set, and the buttons that save it or leave it as it was.
import { Button, chakra, CloseButton, Dialog, Portal } from '@chakra-ui/react';
import type { ReactNode } from 'react';

interface FormDialogProps {
  readonly title: string;
  readonly children: ReactNode;
  save(): void;
  close(): void;
}

export function FormDialog({ title, children, save, close }: FormDialogProps) {
  return (
    <Dialog.Root size="sm" placement="center" open onOpenChange={(next) => next.open || close()}>
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content>
            <chakra.form
              display="contents"
              noValidate
              onSubmit={(event) => {
                event.preventDefault();
                // A form around the page would hear it, too, since what is drawn elsewhere is its child to React.
                event.stopPropagation();
                save();
              }}
            >
              <Dialog.Header>
                <Dialog.Title>{title}</Dialog.Title>
              </Dialog.Header>
              <Dialog.Body>{children}</Dialog.Body>
              <Dialog.Footer>
                <Button size="sm" onClick={close}>
                  Cancel
                </Button>
                <Button variant="solid" size="sm" type="submit">
                  Save
                </Button>
              </Dialog.Footer>
              <Dialog.CloseTrigger asChild>
                <CloseButton size="sm" aria-label="Close" />
              </Dialog.CloseTrigger>
            </chakra.form>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
