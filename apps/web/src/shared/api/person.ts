const KEY = 'coomb.person';
const HAND = 'coomb.hand';
export const personChanged = 'coomb-person-changed';

/** Name under which changes are recorded: kept in this browser. */
export function readPerson(): string {
  return localStorage.getItem(KEY) ?? '';
}

export function writePerson(name: string): void {
  localStorage.setItem(KEY, name.trim());
  window.dispatchEvent(new Event(personChanged));
}

/** A mark of this browser that stays whatever the person's name: undo finds one's own actions by it. */
export function readHand(): string {
  let hand = localStorage.getItem(HAND);
  if (!hand) {
    hand = Array.from(crypto.getRandomValues(new Uint8Array(16)), (byte) => byte.toString(16).padStart(2, '0')).join('');
    localStorage.setItem(HAND, hand);
  }
  return hand;
}
