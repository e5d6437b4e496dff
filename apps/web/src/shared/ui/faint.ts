/** How strongly is shown what a lens does not light. */
export const FAINT = 0.35;
