// Adds a value where the catalog keeps its values; asks when the range ends at a fixed row.
import { Button, HStack, Input, Text } from '@chakra-ui/react';
import type { CatalogView } from '@dellum/contract';
import { useState } from 'react';
import { inTurn } from '../../data/inTurn.js';
import { isProblem, problemWords } from '../../data/problem.js';
import { useTold } from '../acts/useRegister.js';
import { useAddItemMutation } from '../../data/catalogsApi.js';

interface AddItemProps {
  readonly catalog: CatalogView;
  /** The parents of the new value, outermost first. */
  readonly path: readonly string[];
  /** One types into it at once: whoever keeps the values comes to add one. */
  readonly first?: boolean;
}

export function AddItem({ catalog, path, first = false }: AddItemProps) {
  const [text, setText] = useState('');
  const [asked, setAsked] = useState<{ readonly value: string; readonly words: string }>();
  const [fault, setFault] = useState<string>();
  const [add] = useAddItemMutation();
  const told = useTold();
  /** One types on while a value is on its way: each is sent in its turn, and one that is not taken comes back where nothing else stands. */
  const send = async (value: string, widen: boolean) => {
    if (value.trim() === '') return;
    const request = inTurn(`values of ${catalog.id}`, () =>
      add({ id: catalog.id, item: { path: [...path], value, ...(widen && { widen }) } }).unwrap(),
    );
    setText((typed) => (typed === value ? '' : typed));
    setFault(undefined);
    setAsked(undefined);
    try {
      await request;
    } catch (error) {
      setText((typed) => (typed === '' ? value : typed));
      if (isProblem(error) && error.code === 'range-fixed') return setAsked({ value, words: error.detail });
      return setFault(problemWords(error));
    }
    await told(request);
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        void send(text, false);
      }}
    >
      <HStack gap="2" wrap="wrap">
        <Input
          size="xs"
          w="200px"
          autoFocus={first}
          borderColor="slate.border"
          placeholder={path.length === 0 ? 'Add a value' : `Add under ${path.at(-1)}`}
          aria-label={path.length === 0 ? 'Add a value' : `Add a value under ${path.at(-1)}`}
          aria-invalid={fault !== undefined}
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
        <Button type="submit" disabled={text.trim() === ''}>
          Add
        </Button>
        {asked && (
          <HStack role="alert" color="amber.fg">
            <Text>{asked.words}</Text>
            <Button variant="solid" onClick={() => void send(asked.value, true)}>
              Take it in
            </Button>
            <Button onClick={() => setAsked(undefined)}>Cancel</Button>
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
