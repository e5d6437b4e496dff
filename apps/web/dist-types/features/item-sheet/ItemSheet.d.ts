/** The sheet at the side of a view; its address is the view's with `?item=`. */
export declare function ItemSheet({ item, onClose }: {
    item: string;
    onClose: () => void;
}): import("react/jsx-runtime").JSX.Element;
