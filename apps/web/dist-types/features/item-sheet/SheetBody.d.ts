import { type Sheet } from './queries';
/** The item sheet: text, fields, trail, coverage, evidence, place in its source, changes. The same beside a view and full. */
export declare function SheetBody({ sheet, wide }: {
    sheet: Sheet;
    wide?: boolean;
}): import("react/jsx-runtime").JSX.Element;
