import type { OutlineReply } from '@coomb/contract';
import { type SectionLayout } from './section-layout';
export interface SectionLook {
    colour: (token: string) => string;
    /** Links as pairs of outline rows, drawn faintly while nothing is traced. */
    seams: [number, number][];
    hovered: number | undefined;
    /** Distance of every row reached from the hovered one. */
    traced: Map<number, number> | undefined;
    brushed: ReadonlySet<number> | undefined;
}
/** Paints stripes, cells and seams. Below 5 px cells lose their gap and border. */
export declare function paintSection(context: CanvasRenderingContext2D, layout: SectionLayout, outline: OutlineReply, look: SectionLook): void;
