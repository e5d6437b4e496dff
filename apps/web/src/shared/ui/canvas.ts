/** Prepares a canvas for sharp drawing at the screen's density; returns its context, cleared, in CSS pixels. */
export function openCanvas(canvas: HTMLCanvasElement, width: number, height: number): CanvasRenderingContext2D {
  const density = window.devicePixelRatio || 1;
  if (canvas.width !== Math.round(width * density) || canvas.height !== Math.round(height * density)) {
    canvas.width = Math.round(width * density);
    canvas.height = Math.round(height * density);
  }
  const context = canvas.getContext('2d')!;
  context.setTransform(density, 0, 0, density, 0, 0);
  context.clearRect(0, 0, width, height);
  return context;
}

/** Colours of theme tokens as the canvas needs them: `state.verified` → `#5b7f3a`. */
export function readColours(element: Element): (token: string) => string {
  const style = getComputedStyle(element);
  const known = new Map<string, string>();
  return (token) => {
    let colour = known.get(token);
    if (colour === undefined) {
      colour = style.getPropertyValue(`--chakra-colors-${token.replace('.', '-').replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`)}`).trim() || '#888';
      known.set(token, colour);
    }
    return colour;
  };
}
