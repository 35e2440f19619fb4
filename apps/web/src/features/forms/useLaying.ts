// Laying out a form: what is changed shows at once, is stored a moment later, and can be taken back.
import type { FormLayout } from '@dellum/core';
import type { FormView } from '@dellum/contract';
import { useEffect, useRef, useState } from 'react';
import { isProblem, problemWords } from '../../data/problem.js';
import { inTurn } from '../../data/inTurn.js';
import { useNotice } from '../../frame/useNotice.js';
import { useLayFormMutation } from '../../data/formsApi.js';

interface Laid {
  readonly title: string;
  readonly layout: FormLayout;
}
/** Typing is stored when one pauses, and taken back as one. */
const pause = 600;

/** Which fields are asked, and where: what is moved, put in or taken out is taken back by itself. */
const shapeOf = ({ layout }: Laid): string =>
  layout.sections.map(({ id, fields }) => `${id}: ${fields.map(({ field }) => field).join(' ')}`).join('; ');

export function useLaying(form: FormView) {
  const [laid, setLaid] = useState<Laid>({ title: form.title, layout: form.layout });
  const [past, setPast] = useState<readonly Laid[]>([]);
  const [trouble, setTrouble] = useState<{ words: string; stale: boolean }>();
  const edition = useRef(form.edition);
  const waiting = useRef<{ next: Laid; timer: number }>(undefined);
  const changedAt = useRef(0);
  const [lay] = useLayFormMutation();
  const notice = useNotice();

  const store = async (next: Laid): Promise<boolean> =>
    inTurn(`form/${form.id}`, async () => {
      try {
        const stored = await lay({ id: form.id, form: { title: next.title, layout: next.layout, edition: edition.current } }).unwrap();
        edition.current = stored.edition;
        setTrouble(undefined);
        return true;
      } catch (error) {
        setTrouble({ words: problemWords(error), stale: isProblem(error) && error.code === 'form-changed' });
        notice('refused', problemWords(error));
        return false;
      }
    });
  /** Stores what waits; false when it is not taken. */
  const flush = async (): Promise<boolean> => {
    const next = waiting.current;
    if (!next) return trouble === undefined;
    window.clearTimeout(next.timer);
    waiting.current = undefined;
    return store(next.next);
  };
  const latest = useRef(flush);
  useEffect(() => {
    latest.current = flush;
  });
  useEffect(() => () => void latest.current(), []);

  const put = (next: Laid) => {
    setLaid(next);
    if (waiting.current) window.clearTimeout(waiting.current.timer);
    waiting.current = { next, timer: window.setTimeout(() => void latest.current(), pause) };
  };
  const change = (part: Partial<Laid>) => {
    const now = Date.now();
    const next = { ...laid, ...part };
    if (now - changedAt.current > pause || shapeOf(next) !== shapeOf(laid)) setPast([...past, laid].slice(-100));
    changedAt.current = now;
    put(next);
  };
  const takeBack = () => {
    const before = past.at(-1);
    if (!before) return;
    setPast(past.slice(0, -1));
    changedAt.current = 0;
    put(before);
  };
  return { ...laid, change, takeBack: past.length > 0 ? takeBack : undefined, flush, trouble };
}
export type Laying = ReturnType<typeof useLaying>;
