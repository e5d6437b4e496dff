interface ChoiceProps {
    label: string;
    value: string;
    options: readonly {
        value: string;
        label: string;
    }[];
    onChange: (value: string) => void;
    width?: string;
}
/** A small select with an accessible name. */
export declare function Choice({ label, value, options, onChange, width }: ChoiceProps): import("react/jsx-runtime").JSX.Element;
export {};
