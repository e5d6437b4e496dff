import { type Sheet } from './queries';
/** Coverage rules of an item, each with its state, why, and a waiver where it is not met. */
export declare function Coverage({ project, sheet }: {
    project: string;
    sheet: Sheet;
}): import("react/jsx-runtime").JSX.Element[];
