/** One list for items, views and actions, from the keyboard. */
export declare function FindAnything({ onClose }: {
    onClose: () => void;
}): import("react/jsx-runtime").JSX.Element;
