let held = false;
for (const event of ['keydown', 'keyup', 'pointerdown', 'pointerup'] as const)
  window.addEventListener(event, (one) => (held = one.shiftKey), { capture: true, passive: true });

/** Whether Shift was held when a key or the pointer was last pressed or let go. */
export const shiftIsHeld = (): boolean => held;
