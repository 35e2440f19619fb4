// The help slip: which keys do what, in the sheet and anywhere.
import { CloseButton, Dialog, Kbd, Portal, Table } from '@chakra-ui/react';

const keys: readonly (readonly [keys: readonly string[], does: string])[] = [
  [['Ctrl', '.'], 'go to the seek line, from anywhere'],
  [['Arrows', 'Tab'], 'move; with Ctrl to the edges, with Shift the block grows'],
  [['Enter', 'F2'], 'edit the cell; Enter again takes and goes down'],
  [['Alt', 'Enter'], 'begin a new line in a text'],
  [['Alt', '↓'], 'open the list of values, or the calendar'],
  [['Space'], 'answer yes or no'],
  [['Ctrl', 'Enter'], 'store a value that is meant, where the rule asks'],
  [['Escape'], 'close the list, then leave the cell as it was'],
  [['Delete'], 'make the block blank'],
  [['F8'], 'carry the top of the block down; with Shift as a series'],
  [['Ctrl', 'C / X / V'], 'copy, cut, paste the block'],
  [['Alt', 'Shift', '↑ / ↓'], 'move rows of a list'],
  [['Ctrl', 'Z / Y'], 'take back your last act on the sheet, and do it again'],
  [['F6'], 'leave the grid; with Shift backwards'],
];

export function KeysHelp({ open, close }: { open: boolean; close: () => void }) {
  return (
    <Dialog.Root open={open} onOpenChange={(details) => !details.open && close()} size="sm" placement="center">
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content>
            <Dialog.Header>
              <Dialog.Title>Keys</Dialog.Title>
            </Dialog.Header>
            <Dialog.Body>
              <Table.Root size="sm">
                <Table.Body>
                  {keys.map(([pressed, does]) => (
                    <Table.Row key={does} bg="transparent">
                      <Table.Cell whiteSpace="nowrap">
                        {pressed.map((key) => (
                          <Kbd key={key} size="sm" mr="1">
                            {key}
                          </Kbd>
                        ))}
                      </Table.Cell>
                      <Table.Cell>{does}</Table.Cell>
                    </Table.Row>
                  ))}
                </Table.Body>
              </Table.Root>
            </Dialog.Body>
            <Dialog.CloseTrigger asChild>
              <CloseButton size="sm" aria-label="Close" />
            </Dialog.CloseTrigger>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
