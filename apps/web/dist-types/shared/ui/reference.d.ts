import { type BoxProps } from '@chakra-ui/react';
/** Address that opens an item's sheet beside the present view. */
export declare function useItemAddress(): (reference: string) => string;
/** A reference in mono that opens the item's sheet. */
export declare function Reference({ reference, ...rest }: {
    reference: string;
} & BoxProps): import("react/jsx-runtime").JSX.Element;
