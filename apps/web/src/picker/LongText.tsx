// A text of any length: the editor grows with what is typed, and takes several lines.
import { useEffect, useId, useLayoutEffect, useRef, useState, type KeyboardEvent } from 'react';
import { Floating } from './Floating.js';
import { arrowOut, RefusalNote, type TextEditing } from './PickerInput.js';

/** Longer texts get an editor that is wider than its cell. */
const longFrom = 30;
const mostLines = 14;
const lineHeight = 20;

export function LongText({ label, text, refusal, selectAll, typedOver, style, onText, onTake, onEscape, onBlur }: TextEditing) {
  const [area, setArea] = useState<HTMLTextAreaElement | null>(null);
  const [suggested, setSuggested] = useState(0);
  const id = useId();
  const whole = useRef(selectAll);
  useEffect(() => {
    area?.focus();
    if (whole.current) area?.select();
    else area?.setSelectionRange(area.value.length, area.value.length);
  }, [area]);
  useLayoutEffect(() => {
    if (area) fit(area);
  }, [area, text]);

  const suggestions = refusal?.suggestions ?? [];
  const breakLine = (target: HTMLTextAreaElement) => {
    const { selectionStart: from, selectionEnd: to } = target;
    target.setRangeText('\n', from, to, 'end');
    onText(target.value);
  };
  const keys = (event: KeyboardEvent<HTMLTextAreaElement>) => {
    if (event.nativeEvent.isComposing) return;
    event.stopPropagation();
    const out = typedOver && !refusal && !text.includes('\n') ? arrowOut(event) : undefined;
    if (out) {
      event.preventDefault();
      return onTake({ typed: text }, out);
    }
    const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (by && suggestions.length > 0) {
      event.preventDefault();
      return setSuggested((suggested + by + suggestions.length) % suggestions.length);
    }
    switch (event.key) {
      case 'Enter':
        event.preventDefault();
        if (event.altKey) return breakLine(event.currentTarget);
        if (event.repeat) return;
        if (refusal?.mayConfirm && event.ctrlKey) return onTake({ typed: text }, 'enter', true);
        return onTake({ typed: suggestions[suggested] ?? text }, event.shiftKey ? 'backEnter' : 'enter');
      case 'Tab':
        event.preventDefault();
        return onTake({ typed: text }, event.shiftKey ? 'backTab' : 'tab');
      case 'Escape':
        event.preventDefault();
        return onEscape();
    }
  };
  const isLong = text.length > longFrom || text.includes('\n');
  return (
    <>
      <textarea
        ref={setArea}
        className="dl-input"
        style={{ ...style, ...areaStyle, minWidth: isLong ? '340px' : '100%' }}
        aria-label={label}
        aria-invalid={refusal !== undefined}
        {...(refusal && { 'aria-describedby': `${id}-refusal` })}
        dir="auto"
        rows={1}
        spellCheck={false}
        value={text}
        onChange={(event) => {
          setSuggested(0);
          onText(event.target.value);
        }}
        onKeyDown={keys}
        onMouseDown={(event) => event.stopPropagation()}
        onBlur={onBlur}
      />
      {refusal && (
        <Floating anchor={area}>
          <RefusalNote
            id={`${id}-refusal`}
            refusal={refusal}
            suggested={suggested}
            onPick={(suggestion) => onTake({ typed: suggestion }, 'pick')}
            onConfirm={() => onTake({ typed: text }, 'pick', true)}
          />
        </Floating>
      )}
    </>
  );
}

/** As high as its text; wider than its cell it grows to the side on which there is room. */
function fit(area: HTMLTextAreaElement): void {
  area.style.height = '0';
  area.style.height = `${Math.min(area.scrollHeight, mostLines * lineHeight)}px`;
  const cell = area.parentElement!.getBoundingClientRect();
  const growsLeft = cell.left + area.offsetWidth > document.documentElement.clientWidth && cell.right > area.offsetWidth;
  area.style.left = growsLeft ? 'auto' : '0';
  area.style.right = growsLeft ? '0' : 'auto';
}

const areaStyle = {
  position: 'absolute',
  top: 0,
  minHeight: '100%',
  padding: '4px 8px',
  lineHeight: `${lineHeight}px`,
  resize: 'none',
  whiteSpace: 'pre-wrap',
  overflow: 'auto',
} as const;
