// A panel that the address names: going back closes it first, and closing it leaves no step behind that goes nowhere.
import { useEffect, useEffectEvent, useRef } from 'react';
import { useLocation, useNavigate, useSearchParams } from 'react-router';

interface Opened {
  /** The parameters from which the panel was opened here. */
  readonly panelFrom?: string;
}

type Change = Readonly<Record<string, string | undefined>>;

export function usePanel(isOpen: (params: URLSearchParams) => boolean): [URLSearchParams, (next: Change) => void] {
  const [params, setParams] = useSearchParams();
  const { state, key } = useLocation();
  const navigate = useNavigate();
  const from = (state as Opened | null)?.panelFrom;
  // The browser goes back in its own time. What is pressed until then would be of the step that is being left, and go with it.
  const goingBack = useRef<Change[]>(undefined);
  const change = (next: Change) => {
    if (goingBack.current) {
      goingBack.current.push(next);
      return;
    }
    const changed = new URLSearchParams(params);
    for (const [name, own] of Object.entries(next)) {
      if (own === undefined) changed.delete(name);
      else changed.set(name, own);
    }
    const opens = !isOpen(params) && isOpen(changed);
    if (from !== undefined && !isOpen(changed) && changed.toString() === from) {
      goingBack.current = [];
      void navigate(-1);
    } else setParams(changed, { replace: !opens, state: opens ? { panelFrom: params.toString() } : state });
  };
  const arrive = useEffectEvent(() => {
    const waited = goingBack.current ?? [];
    goingBack.current = undefined;
    if (waited.length > 0) change(Object.assign({}, ...waited) as Change);
  });
  useEffect(() => arrive(), [key]);
  return [params, change];
}
