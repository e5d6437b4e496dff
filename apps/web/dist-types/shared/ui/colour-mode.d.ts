export type ColourMode = 'light' | 'dark';
/** Puts the theme on the page; once at start, and at every change. */
export declare function applyColourMode(): void;
export declare function setColourMode(mode: ColourMode): void;
export declare function useColourMode(): ColourMode;
