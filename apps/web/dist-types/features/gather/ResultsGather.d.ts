import type { TrayEntry } from '@coomb/contract';
interface Props {
    entry: TrayEntry;
    content: Extract<TrayEntry['content'], {
        type: 'results';
    }>;
}
/** A result file: every case with the test it meets and why; unmatched ones first. */
export declare function ResultsGather({ entry, content }: Props): import("react/jsx-runtime").JSX.Element;
export {};
