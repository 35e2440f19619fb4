// A panel that the address names: going back closes it first, and closing it leaves no step behind that goes nowhere.
import { useLocation, useNavigate, useSearchParams } from 'react-router';

interface Opened {
  /** The parameters from which the panel was opened here. */
  readonly panelFrom?: string;
}

export function usePanel(
  isOpen: (params: URLSearchParams) => boolean,
): [URLSearchParams, (next: Readonly<Record<string, string | undefined>>) => void] {
  const [params, setParams] = useSearchParams();
  const { state } = useLocation();
  const navigate = useNavigate();
  const from = (state as Opened | null)?.panelFrom;
  const change = (next: Readonly<Record<string, string | undefined>>) => {
    const changed = new URLSearchParams(params);
    for (const [name, own] of Object.entries(next)) {
      if (own === undefined) changed.delete(name);
      else changed.set(name, own);
    }
    const opens = !isOpen(params) && isOpen(changed);
    if (from !== undefined && !isOpen(changed) && changed.toString() === from) void navigate(-1);
    else setParams(changed, { replace: !opens, state: opens ? { panelFrom: params.toString() } : state });
  };
  return [params, change];
}
