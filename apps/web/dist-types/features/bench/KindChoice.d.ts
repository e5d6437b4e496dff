import { type AllowedLink } from '@coomb/core';
interface Props {
    left: string;
    right: string;
    allowed: AllowedLink[];
    onChoose: (allowed: AllowedLink) => void;
    onClose: () => void;
}
/** Only link kinds that are valid for the two ends; a number chooses. */
export declare function KindChoice({ left, right, allowed, onChoose, onClose }: Props): import("react/jsx-runtime").JSX.Element;
export {};
