/** Geometry of the section: one stripe per layer, bent like strata in a valley; one square cell per item in outline order. */
export interface Stripe {
    layer: number;
    /** Outline rows of the items, in reading order. */
    rows: number[];
    /** Top of the stripe at the left edge. */
    top: number;
    height: number;
    perLine: number;
}
export interface SectionLayout {
    width: number;
    height: number;
    /** Side of a cell with its gap. */
    cell: number;
    stripes: Stripe[];
    /** Stripe and place of each outline row, or undefined for headings. */
    placeOf: Map<number, {
        stripe: number;
        index: number;
    }>;
}
/** How far the ground dips at `x`. */
export declare function dipAt(layout: {
    width: number;
}, x: number): number;
/** Finds the largest cells with which all stripes and the seams between them fit. */
export declare function buildSectionLayout(rowsByLayer: number[][], width: number, height: number): SectionLayout;
/** Top left corner of a cell. */
export declare function cellAt(layout: SectionLayout, stripe: Stripe, index: number): {
    x: number;
    y: number;
};
export declare function centreOf(layout: SectionLayout, row: number): {
    x: number;
    y: number;
    stripe: number;
} | undefined;
/** The outline row under a point, or undefined. */
export declare function findRowAt(layout: SectionLayout, x: number, y: number): number | undefined;
/** Rows whose cells lie within a rectangle. */
export declare function findRowsIn(layout: SectionLayout, box: {
    left: number;
    top: number;
    right: number;
    bottom: number;
}): number[];
