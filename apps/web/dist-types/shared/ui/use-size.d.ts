import { type RefObject } from 'react';
/** Size of an element in CSS pixels, following its changes. */
export declare function useSize(ref: RefObject<HTMLElement | null>): {
    width: number;
    height: number;
};
