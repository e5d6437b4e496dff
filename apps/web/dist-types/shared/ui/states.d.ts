import { type FlexProps } from '@chakra-ui/react';
import type { CoverageState, VerificationState } from '@coomb/core';
import { type LucideIcon } from 'lucide-react';
interface Look {
    label: string;
    icon: LucideIcon;
    explains: string;
}
/** Word, glyph and meaning of each verification state; its colour is the token `state.<id>`. */
export declare const stateLooks: Record<VerificationState, Look>;
export declare const coverageLooks: Record<CoverageState, Look & {
    colour: string;
}>;
/** A state as colour, glyph and word; `bare` leaves the word to the tooltip. */
export declare function StateMark({ state, bare, ...rest }: {
    state: VerificationState;
    bare?: boolean;
} & FlexProps): import("react/jsx-runtime").JSX.Element;
export {};
