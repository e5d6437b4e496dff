import type { z } from 'zod';
/** Filters, sort, selection and tab live in the address: read through a schema with defaults, written back without them. */
export declare function useAddress<S extends z.ZodObject>(schema: S): [z.output<S>, (change: Partial<z.output<S>>, options?: {
    replace?: boolean;
}) => void];
