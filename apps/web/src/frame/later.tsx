// Parts of a page that nobody needs at first: they are fetched once the page stands and the browser has nothing else to do.
import { useState, type ComponentType, type ReactNode } from 'react';
import { fetchedPart } from '../data/fetchedPart.js';
import { whenIdle } from './whenIdle.js';

const waiting: (() => Promise<unknown>)[] = [];

/** A part that is fetched later, or when it is drawn; it takes what the part itself takes. `until`: what stands there meanwhile. */
export function later<Props extends object>(
  load: () => Promise<ComponentType<Props>>,
  until?: (props: Props) => ReactNode,
): ComponentType<Props> {
  const { Part, fetch } = fetchedPart(load, until);
  waiting.push(fetch);
  return Part;
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
  let isLeft = false;
  let leave = () => {};
  const go = () => {
    if (isLeft || waiting.length === 0) return;
    leave = whenIdle(() => {
      void waiting
        .shift()?.()
        .catch(() => undefined)
        .then(go);
    });
  };
  go();
  return () => {
    isLeft = true;
    leave();
  };
}
