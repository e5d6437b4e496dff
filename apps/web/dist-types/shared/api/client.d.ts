import { type AnyEndpoint, type BodyOf, type ErrorCode, type ParamsOf, type QueryOf, type ReplyOf, type TrayEntry } from '@coomb/contract';
/** A refusal of the server, in words for people. */
export declare class ApiError extends Error {
    readonly name = "ApiError";
    readonly code: ErrorCode | 'unreachable';
    readonly details: Record<string, unknown> | undefined;
    constructor(code: ErrorCode | 'unreachable', message: string, details?: Record<string, unknown>);
}
interface Input<E extends AnyEndpoint> {
    params?: ParamsOf<E>;
    query?: QueryOf<E>;
    body?: BodyOf<E>;
    signal?: AbortSignal;
}
/** Calls an endpoint of the contract and parses the reply. Throws ApiError. */
export declare function call<E extends AnyEndpoint>(endpoint: E, input?: Input<E>): Promise<ReplyOf<E>>;
export declare function upload(project: string, file: File): Promise<TrayEntry>;
export {};
