// The editor of a cell in a list: free text; what the server refuses stays in the editor.
import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import type { EditorProps } from '../../grid/index.js';
import { inputStyle } from '../entries/CellEditor.js';

interface ListCellEditorProps {
  readonly editing: EditorProps;
  readonly label: string;
  readonly held: string;
  /** Resolves to false when the text was not taken. */
  commit(text: string): Promise<boolean>;
}

export function ListCellEditor({ editing, label, commit }: ListCellEditorProps) {
  const [text, setText] = useState(editing.text);
  const [busy, setBusy] = useState(false);
  const left = useRef(false);
  const input = useRef<HTMLInputElement>(null);
  const { replaces } = editing;
  useEffect(() => {
    input.current?.focus();
    if (replaces) input.current?.setSelectionRange(input.current.value.length, input.current.value.length);
    else input.current?.select();
  }, [replaces]);

  const take = async (move: 'down' | 'right' | 'left' | 'stay') => {
    if (left.current || busy) return;
    setBusy(true);
    const taken = await commit(text);
    setBusy(false);
    if (!taken) return input.current?.focus();
    left.current = true;
    editing.leave(move);
  };
  const keys = (event: KeyboardEvent) => {
    event.stopPropagation();
    if (event.key === 'Enter' || event.key === 'Tab') {
      event.preventDefault();
      void take(event.key === 'Enter' ? 'down' : event.shiftKey ? 'left' : 'right');
    }
    if (event.key === 'Escape') {
      event.preventDefault();
      left.current = true;
      editing.leave('stay');
    }
  };
  return <input ref={input} aria-label={label} aria-busy={busy} style={inputStyle} autoComplete="off" spellCheck={false} dir="auto" value={text} onChange={(event) => setText(event.target.value)} onKeyDown={keys} onMouseDown={(event) => event.stopPropagation()} onBlur={() => void take('stay')} />;
}
