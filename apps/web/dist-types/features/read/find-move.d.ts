import type { OutlineReply } from '@coomb/contract';
export type MoveWish = 'up' | 'down' | 'in' | 'out';
/** Where an item goes when moved among its siblings, below the one before it, or out beside its parent. Undefined where it cannot. */
export declare function findMove(outline: Pick<OutlineReply, 'id' | 'parent'>, rows: readonly number[], position: number, wish: MoveWish): {
    parent: string | null;
    after: string | null;
} | undefined;
