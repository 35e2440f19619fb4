// Parts of the application that are fetched by themselves. A server that is away when one is asked for is asked again until it is back:
// nothing else on the page suffers from it.
import { useEffect, useState, type ComponentType, type ReactNode } from 'react';

/** So long until a part that could not be fetched is asked for again; milliseconds. */
const askAgain = 1500;

export interface FetchedPart<Props> {
  /** Draws the part, or what stands there until it is here. */
  readonly Part: ComponentType<Props>;
  /** Fetches it ahead of being drawn. */
  fetch(): Promise<unknown>;
}

/** A part that is fetched when it is drawn first. `until`: what stands there meanwhile; `failed` once it could not be fetched. */
export function fetchedPart<Props extends object>(
  load: () => Promise<ComponentType<Props>>,
  until: (props: Props, failed: boolean) => ReactNode = () => null,
): FetchedPart<Props> {
  let here: ComponentType<Props> | undefined;
  const fetch = async () => (here ??= await load());
  function Part(props: Props) {
    const [Drawn, setDrawn] = useState(() => here);
    const [failed, setFailed] = useState(false);
    useEffect(() => {
      if (Drawn) return;
      let wanted = true;
      let timer: number | undefined;
      const ask = () => {
        fetch().then(
          (found) => wanted && setDrawn(() => found),
          () => {
            if (!wanted) return;
            setFailed(true);
            timer = window.setTimeout(ask, askAgain);
          },
        );
      };
      ask();
      return () => {
        wanted = false;
        window.clearTimeout(timer);
      };
    }, [Drawn]);
    return Drawn ? <Drawn {...props} /> : until(props, failed);
  }
  return { Part, fetch };
}
