import { useEffect } from 'react';

/** Keys by name (`n`, `?`, `Control+k`, `Alt+2`). They stay silent while somebody types. */
export function useKeys(keys: Record<string, (event: KeyboardEvent) => void>, active = true): void {
  useEffect(() => {
    if (!active) return;
    const listen = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      const typing = target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName);
      const name = `${event.ctrlKey || event.metaKey ? 'Control+' : ''}${event.altKey ? 'Alt+' : ''}${event.shiftKey && event.key.length > 1 ? 'Shift+' : ''}${event.key.length === 1 ? event.key.toLowerCase() : event.key}`;
      const presses = event.key === ' ' && target.closest('button, summary, [role="button"]');
      const run = presses ? undefined : keys[name];
      if (!run || event.defaultPrevented || (typing && !event.ctrlKey && !event.metaKey && event.key !== 'Escape')) return;
      event.preventDefault();
      run(event);
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, [keys, active]);
}
