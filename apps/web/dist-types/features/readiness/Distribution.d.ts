interface Props {
    title: string;
    note: string;
    figures: {
        id: string;
        label: string;
        count: number;
    }[];
    base: string;
}
/** A small bar chart whose bars open their items. */
export declare function Distribution({ title, note, figures, base }: Props): import("react/jsx-runtime").JSX.Element;
export {};
