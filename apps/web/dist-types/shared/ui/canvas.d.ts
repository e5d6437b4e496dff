/** Prepares a canvas for sharp drawing at the screen's density; returns its context, cleared, in CSS pixels. */
export declare function openCanvas(canvas: HTMLCanvasElement, width: number, height: number): CanvasRenderingContext2D;
/** Colours of theme tokens as the canvas needs them: `state.verified` → `#5b7f3a`. */
export declare function readColours(element: Element): (token: string) => string;
