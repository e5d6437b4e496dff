import type { RecipeOutcome } from '@coomb/core';
/** "123 items, 32 sections, 123 links; 2 remarks". */
export declare function describeOutcome(outcome: RecipeOutcome, moreRemarks?: number): string;
