export declare function KeysHelp({ onClose }: {
    onClose: () => void;
}): import("react/jsx-runtime").JSX.Element;
