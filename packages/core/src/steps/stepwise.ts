/**
 * Long work that stops after every part, so that whoever runs it decides when to go on, may tell how far it is, and may leave it. A part is a
 * row, an object, an element: far less than a millisecond.
 */
export type Stepwise<T> = Generator<void, T, void>;

/** Runs work to its end without a pause: in a worker, or where nobody waits. */
export function finish<T>(work: Stepwise<T>): T {
  for (;;) {
    const step = work.next();
    if (step.done) return step.value;
  }
}
