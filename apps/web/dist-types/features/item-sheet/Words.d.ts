/** A word-level difference: removed words struck, added ones underlined; told by shape as well as by colour. */
export declare function Words({ words }: {
    words: {
        type: 'same' | 'added' | 'removed';
        text: string;
    }[];
}): import("react/jsx-runtime").JSX.Element;
