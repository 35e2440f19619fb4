// The help panel: what the page is for, its three commonest acts, and which keys do what.
import { CloseButton, Dialog, Heading, Kbd, List, Portal, Table, Text } from '@chakra-ui/react';
import { useLocation } from 'react-router';
import { helpFor } from './pageHelp.js';

type Keys = readonly (readonly [keys: readonly string[], does: string])[];

const everywhere: Keys = [
  [['?'], 'this help'],
  [['Ctrl', '.'], 'go to the search line'],
];

const inGrids: Keys = [
  [['Arrows', 'Tab'], 'move; with Ctrl to the edges, with Shift the block grows'],
  [['Enter', 'F2'], 'edit the cell; Enter takes and goes down, Shift Enter up; in a new entry it goes on to the next field'],
  [['Alt', '↓'], 'open the list of values, or the calendar'],
  [['Menu', 'Shift F10'], 'what can be done with the cell'],
  [['Shift', 'Space'], 'choose the whole entry'],
  [['Insert'], 'a new entry above; with Alt below'],
  [['Ctrl', 'Delete'], 'delete the chosen entries'],
  [['Ctrl', 'F'], 'find in the sheet'],
  [['Space'], 'answer yes or no'],
  [['Alt', 'Enter'], 'begin a new line in a text'],
  [['Ctrl', 'Enter'], 'store a value that is meant, where the rule asks'],
  [['Escape'], 'close the list, then leave the cell as it was'],
  [['Delete'], 'clear the block'],
  [['F8'], 'fill the top of the block down; with Shift as a series'],
  [['Ctrl', 'C / X / V'], 'copy, cut, paste the block'],
  [['Alt', 'Shift', '↑ / ↓'], 'move rows of a list'],
  [['Ctrl', 'Z / Y'], 'undo your last act on the sheet, and redo it'],
  [['F6'], 'leave the grid, and come back to it; with Shift backwards'],
];

export function KeysHelp({ open, close }: { open: boolean; close: () => void }) {
  const { pathname } = useLocation();
  const help = helpFor(pathname);
  const keys = help?.grid ? [...inGrids, ...everywhere] : [...everywhere, ...inGrids];
  return (
    <Dialog.Root open={open} onOpenChange={(details) => !details.open && close()} size="md" placement="center" scrollBehavior="inside">
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content>
            <Dialog.Header>
              <Dialog.Title>{help?.title ?? 'Help'}</Dialog.Title>
            </Dialog.Header>
            <Dialog.Body>
              {help && (
                <>
                  <Text mb="2">{help.about}</Text>
                  <List.Root as="ol" ps="5" mb="4">
                    {help.acts.map((act) => (
                      <List.Item key={act}>{act}</List.Item>
                    ))}
                  </List.Root>
                </>
              )}
              <Heading as="h3" fontSize="sm" mb="1">
                Keys
              </Heading>
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
