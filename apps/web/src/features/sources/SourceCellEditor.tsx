// The editor of a cell in a list or table: free text; one that cannot be stored stays in the editor and is told why.
import { useEffect, useId, useRef, useState, type KeyboardEvent } from 'react';
import { useLeftBehind, type EditorProps, type Move } from '../../grid/index.js';
import { Floating } from '../../picker/Floating.js';
import { arrowOut, RefusalNote } from '../../picker/PickerInput.js';
import { inputStyle } from '../entries/CellEditor.js';

interface SourceCellEditorProps {
  readonly editing: EditorProps;
  readonly label: string;
  /** Stores the text; returns what is wrong with one that cannot be stored. */
  commit(text: string): string | undefined;
}

export function SourceCellEditor({ editing, label, commit }: SourceCellEditorProps) {
  const [text, setText] = useState(editing.text);
  const [fault, setFault] = useState<string>();
  const [input, setInput] = useState<HTMLInputElement | null>(null);
  const left = useRef(false);
  const id = useId();
  const { replaces } = editing;
  useEffect(() => {
    input?.focus();
    if (replaces) input?.setSelectionRange(input.value.length, input.value.length);
    else input?.select();
  }, [input, replaces]);

  const take = (move: Move) => {
    if (left.current) return;
    const wrong = commit(text);
    setFault(wrong);
    if (wrong) return;
    left.current = true;
    editing.leave(move);
  };
  useLeftBehind(() => take('stay'));
  const keys = (event: KeyboardEvent<HTMLInputElement>) => {
    event.stopPropagation();
    const out = replaces ? arrowOut(event) : undefined;
    if (out) {
      event.preventDefault();
      take(out);
    }
    if (event.key === 'Enter' || event.key === 'Tab') {
      event.preventDefault();
      const [on, back]: readonly [Move, Move] = event.key === 'Enter' ? ['enter', 'backEnter'] : ['right', 'left'];
      take(event.shiftKey ? back : on);
    }
    if (event.key === 'Escape') {
      event.preventDefault();
      left.current = true;
      editing.leave('stay');
    }
  };
  return (
    <>
      <input
        ref={setInput}
        aria-label={label}
        aria-invalid={fault !== undefined}
        aria-describedby={fault && id}
        style={inputStyle}
        autoComplete="off"
        spellCheck={false}
        dir="auto"
        value={text}
        onChange={(event) => {
          setText(event.target.value);
          setFault(undefined);
        }}
        onKeyDown={keys}
        onMouseDown={(event) => event.stopPropagation()}
        onBlur={() => take('stay')}
      />
      {fault && (
        <Floating anchor={input}>
          <RefusalNote id={id} refusal={{ message: fault, suggestions: [] }} onPick={() => undefined} />
        </Floating>
      )}
    </>
  );
}
