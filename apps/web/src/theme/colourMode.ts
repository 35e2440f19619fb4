// Light or dark: the system's wish until the person chooses; the choice is kept in the browser.
import { useSyncExternalStore } from 'react';

export type ColourMode = 'light' | 'dark';
const key = 'dellum.colour-mode';
const wish = window.matchMedia('(prefers-color-scheme: dark)');
const listeners = new Set<() => void>();

function current(): ColourMode {
  const chosen = localStorage.getItem(key);
  if (chosen === 'light' || chosen === 'dark') return chosen;
  return wish.matches ? 'dark' : 'light';
}

function show(): void {
  document.documentElement.classList.toggle('dark', current() === 'dark');
  document.documentElement.classList.toggle('light', current() === 'light');
  listeners.forEach((listener) => listener());
}

/** Applies the mode and follows the system; called once at start. */
export function startColourMode(): void {
  wish.addEventListener('change', show);
  show();
}

export function chooseColourMode(mode: ColourMode): void {
  localStorage.setItem(key, mode);
  show();
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

export const useColourMode = (): ColourMode => useSyncExternalStore(subscribe, current);
