import { useSyncExternalStore } from 'react';

export type ColourMode = 'light' | 'dark';
const KEY = 'coomb.theme';
const listeners = new Set<() => void>();
const system = matchMedia('(prefers-color-scheme: dark)');

function read(): ColourMode {
  const kept = localStorage.getItem(KEY);
  return kept === 'light' || kept === 'dark' ? kept : system.matches ? 'dark' : 'light';
}

system.addEventListener('change', applyColourMode);
// What is chosen in one window holds in all.
addEventListener('storage', ({ key }) => key === KEY && applyColourMode());

/** Puts the theme on the page; once at start, and at every change. */
export function applyColourMode(): void {
  const mode = read();
  document.documentElement.classList.toggle('dark', mode === 'dark');
  document.documentElement.classList.toggle('light', mode === 'light');
  document.documentElement.style.colorScheme = mode;
  for (const listener of listeners) listener();
}

export function setColourMode(mode: ColourMode): void {
  localStorage.setItem(KEY, mode);
  applyColourMode();
}

export function useColourMode(): ColourMode {
  return useSyncExternalStore((listener) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  }, read);
}
