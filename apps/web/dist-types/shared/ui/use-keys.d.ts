/** Keys by name (`n`, `?`, `Control+k`, `Alt+2`). They stay silent while somebody types. */
export declare function useKeys(keys: Record<string, (event: KeyboardEvent) => void>, active?: boolean): void;
