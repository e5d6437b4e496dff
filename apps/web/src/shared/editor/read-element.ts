import { sanitise } from '../ui/rich-text';

/** The outermost element of a piece of markup, cleaned; undefined where there is none. */
export function readElement(markup: string): HTMLElement | undefined {
  const { body } = new DOMParser().parseFromString(sanitise(markup), 'text/html');
  return body.firstElementChild ? (document.importNode(body.firstElementChild, true) as HTMLElement) : undefined;
}
