import { type Item } from '@coomb/contract';
export declare const pageSize = 100;
/** Texts of the items at some positions of a collection, fetched page by page. */
export declare function useTexts(project: string, collection: string, positions: readonly number[]): (position: number) => Item | undefined;
