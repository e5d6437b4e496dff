/** Tells how far the hand has moved, in the drawing's own unit, until it lets go. */
export function followHand(event: PointerEvent, taken: { x: number; y: number }, scale: number, tell: (by: { x: number; y: number }) => void): void {
  let at = taken;
  const move = (next: PointerEvent) => {
    const by = { x: (next.clientX - at.x) / scale, y: (next.clientY - at.y) / scale };
    if (by.x === 0 && by.y === 0) return;
    at = { x: next.clientX, y: next.clientY };
    tell(by);
  };
  move(event);
  const end = () => {
    window.removeEventListener('pointermove', move);
    window.removeEventListener('pointerup', end);
    window.removeEventListener('pointercancel', end);
  };
  window.addEventListener('pointermove', move);
  window.addEventListener('pointerup', end);
  window.addEventListener('pointercancel', end);
}
