/** The strip below every view: undo and redo, running jobs, who else is here. */
export declare function LedgerStrip({ people, connected }: {
    people: string[];
    connected: boolean;
}): import("react/jsx-runtime").JSX.Element;
