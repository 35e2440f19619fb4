// Adds a value where the catalog keeps its values; asks when the range ends at a fixed row.
import { Button, HStack, Input, Text } from '@chakra-ui/react';
import type { CatalogView } from '@dellum/contract';
import { useState } from 'react';
import { isProblem, problemWords } from '../../api/problem.js';
import { useTold } from '../sources/useRegister.js';
import { useAddItemMutation } from './catalogsApi.js';

interface AddItemProps {
  readonly catalog: CatalogView;
  /** The parents of the new value, outermost first. */
  readonly path: readonly string[];
  /** One types into it at once: whoever keeps the values comes to add one. */
  readonly first?: boolean;
}

export function AddItem({ catalog, path, first = false }: AddItemProps) {
  const [text, setText] = useState('');
  const [asked, setAsked] = useState<string>();
  const [fault, setFault] = useState<string>();
  const [add, { isLoading }] = useAddItemMutation();
  const told = useTold();
  const send = async (widen: boolean) => {
    const request = add({ id: catalog.id, item: { path: [...path], value: text, ...(widen && { widen }) } }).unwrap();
    setFault(undefined);
    setAsked(undefined);
    try {
      await request;
    } catch (error) {
      if (isProblem(error) && error.code === 'range-fixed') return setAsked(error.detail);
      return setFault(problemWords(error));
    }
    await told(request);
    setText('');
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        void send(false);
      }}
    >
      <HStack gap="2" wrap="wrap">
        <Input size="xs" w="200px" autoFocus={first} borderColor="slate.border" placeholder={path.length === 0 ? 'Add a value' : `Add under ${path.at(-1)}`} aria-label={path.length === 0 ? 'Add a value' : `Add a value under ${path.at(-1)}`} aria-invalid={fault !== undefined} value={text} onChange={(event) => setText(event.target.value)} />
        <Button type="submit" size="xs" variant="outline" loading={isLoading} disabled={text.trim() === ''}>
          Add
        </Button>
        {asked && (
          <HStack role="alert" color="amber.fg">
            <Text>{asked}</Text>
            <Button size="xs" onClick={() => void send(true)}>
              Take it in
            </Button>
            <Button size="xs" variant="outline" onClick={() => setAsked(undefined)}>
              Cancel
            </Button>
          </HStack>
        )}
        {fault && (
          <Text role="alert" color="brick.fg">
            {fault}
          </Text>
        )}
      </HStack>
    </form>
  );
}
