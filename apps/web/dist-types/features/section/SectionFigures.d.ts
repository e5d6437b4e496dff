import type { OutlineReply, Readiness } from '@coomb/contract';
interface Props {
    base: string;
    readiness: Readiness;
    outline: OutlineReply;
    brushed: ReadonlySet<number> | undefined;
    /** Whether rows of the outline count as requirements. */
    isRequirement: (row: number) => boolean;
    onRelease: () => void;
}
/** Figures beside the section. With a brushed part they count that part alone. */
export declare function SectionFigures({ base, readiness, outline, brushed, isRequirement, onRelease }: Props): import("react/jsx-runtime").JSX.Element;
export {};
