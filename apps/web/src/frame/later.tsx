// Parts of a page that nobody needs at first: they are fetched once the page stands and the browser has nothing else to do.
import { lazy, Suspense, useState, type ComponentType, type ReactNode } from 'react';
import { whenIdle } from './whenIdle.js';

const waiting: (() => Promise<unknown>)[] = [];

/** A part that is fetched later, or when it is drawn; it takes what the part itself takes. `until`: what stands there meanwhile. */
export function later<Props extends object>(
  load: () => Promise<ComponentType<Props>>,
  until: (props: Props) => ReactNode = () => null,
): ComponentType<Props> {
  const Part = lazy(async () => ({ default: await load() })) as unknown as ComponentType<Props>;
  waiting.push(load);
  return function Later(props: Props) {
    return (
      <Suspense fallback={until(props)}>
        <Part {...props} />
      </Suspense>
    );
  };
}

/** The same for a dialog: nothing of it is drawn before it opens for the first time. */
export function laterDialog<Props extends { readonly open: boolean }>(load: () => Promise<ComponentType<Props>>): ComponentType<Props> {
  const Dialog = later(load);
  return function LaterDialog(props: Props) {
    const [asked, setAsked] = useState(props.open);
    if (props.open && !asked) setAsked(true);
    return asked && <Dialog {...props} />;
  };
}

/**
 * Fetches the parts that were put off, one after another; returns how to leave it. What cannot be fetched is asked for when it is drawn.
 */
export function fetchLater(): () => void {
  const [next] = waiting;
  if (!next) return () => undefined;
  let leave = whenIdle(() => {
    waiting.shift();
    void next()
      .catch(() => undefined)
      .then(() => (leave = fetchLater()));
  });
  return () => leave();
}
