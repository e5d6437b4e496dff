import { getProject, type OutlineReply, type ReplyOf } from '@coomb/contract';
export type Project = ReplyOf<typeof getProject>;
export declare const projectQuery: (project: string) => import("@tanstack/query-core").OmitKeyof<import("@tanstack/react-query").UseQueryOptions<{
    id: string;
    name: string;
    createdAt: string;
    items: number;
    links: number;
    seq: number;
    scheme: {
        layers: {
            id: string;
            label: string;
        }[];
        kinds: {
            id: string;
            label: string;
            plural: string;
            layer: string;
            fields: {
                id: string;
                label: string;
                type: "address" | "choice" | "choices" | "date" | "number" | "person" | "rich" | "text" | "yesNo";
                options?: string[] | undefined;
                unit?: string | undefined;
                meaning?: boolean | undefined;
            }[];
            informative?: boolean | undefined;
        }[];
        linkKinds: {
            id: string;
            phrase: string;
            reverse: string;
            fromKinds: string[];
            toKinds: string[];
            upstream: "from" | "to";
        }[];
        rules: {
            id: string;
            label: string;
            sentence: string;
            of: {
                kinds: string[];
                field?: {
                    id: string;
                    oneOf: string[];
                } | undefined;
            };
            along: {
                linkKind: string;
                direction: "in" | "out";
            }[];
            steps: number;
            atLeast: number;
            reach: {
                kinds: string[];
                field?: {
                    id: string;
                    oneOf: string[];
                } | undefined;
            };
        }[];
        verification: {
            of: {
                kinds: string[];
                field?: {
                    id: string;
                    oneOf: string[];
                } | undefined;
            };
            verifies: string;
            derives: string | null;
            waivedBy: string;
        };
    };
    collections: {
        id: string;
        name: string;
        holds: "model" | "specification" | "tests";
        prefix: string;
        kind: string;
        withdrawn: boolean;
        items: number;
    }[];
    waiting: {
        gather: number;
        shape: number;
        link: number;
        check: number;
        publish: number;
    };
}, Error, {
    id: string;
    name: string;
    createdAt: string;
    items: number;
    links: number;
    seq: number;
    scheme: {
        layers: {
            id: string;
            label: string;
        }[];
        kinds: {
            id: string;
            label: string;
            plural: string;
            layer: string;
            fields: {
                id: string;
                label: string;
                type: "address" | "choice" | "choices" | "date" | "number" | "person" | "rich" | "text" | "yesNo";
                options?: string[] | undefined;
                unit?: string | undefined;
                meaning?: boolean | undefined;
            }[];
            informative?: boolean | undefined;
        }[];
        linkKinds: {
            id: string;
            phrase: string;
            reverse: string;
            fromKinds: string[];
            toKinds: string[];
            upstream: "from" | "to";
        }[];
        rules: {
            id: string;
            label: string;
            sentence: string;
            of: {
                kinds: string[];
                field?: {
                    id: string;
                    oneOf: string[];
                } | undefined;
            };
            along: {
                linkKind: string;
                direction: "in" | "out";
            }[];
            steps: number;
            atLeast: number;
            reach: {
                kinds: string[];
                field?: {
                    id: string;
                    oneOf: string[];
                } | undefined;
            };
        }[];
        verification: {
            of: {
                kinds: string[];
                field?: {
                    id: string;
                    oneOf: string[];
                } | undefined;
            };
            verifies: string;
            derives: string | null;
            waivedBy: string;
        };
    };
    collections: {
        id: string;
        name: string;
        holds: "model" | "specification" | "tests";
        prefix: string;
        kind: string;
        withdrawn: boolean;
        items: number;
    }[];
    waiting: {
        gather: number;
        shape: number;
        link: number;
        check: number;
        publish: number;
    };
}, string[]>, "queryFn"> & {
    queryFn?: import("@tanstack/query-core").QueryFunction<{
        id: string;
        name: string;
        createdAt: string;
        items: number;
        links: number;
        seq: number;
        scheme: {
            layers: {
                id: string;
                label: string;
            }[];
            kinds: {
                id: string;
                label: string;
                plural: string;
                layer: string;
                fields: {
                    id: string;
                    label: string;
                    type: "address" | "choice" | "choices" | "date" | "number" | "person" | "rich" | "text" | "yesNo";
                    options?: string[] | undefined;
                    unit?: string | undefined;
                    meaning?: boolean | undefined;
                }[];
                informative?: boolean | undefined;
            }[];
            linkKinds: {
                id: string;
                phrase: string;
                reverse: string;
                fromKinds: string[];
                toKinds: string[];
                upstream: "from" | "to";
            }[];
            rules: {
                id: string;
                label: string;
                sentence: string;
                of: {
                    kinds: string[];
                    field?: {
                        id: string;
                        oneOf: string[];
                    } | undefined;
                };
                along: {
                    linkKind: string;
                    direction: "in" | "out";
                }[];
                steps: number;
                atLeast: number;
                reach: {
                    kinds: string[];
                    field?: {
                        id: string;
                        oneOf: string[];
                    } | undefined;
                };
            }[];
            verification: {
                of: {
                    kinds: string[];
                    field?: {
                        id: string;
                        oneOf: string[];
                    } | undefined;
                };
                verifies: string;
                derives: string | null;
                waivedBy: string;
            };
        };
        collections: {
            id: string;
            name: string;
            holds: "model" | "specification" | "tests";
            prefix: string;
            kind: string;
            withdrawn: boolean;
            items: number;
        }[];
        waiting: {
            gather: number;
            shape: number;
            link: number;
            check: number;
            publish: number;
        };
    }, string[], never> | undefined;
} & import("@tanstack/query-core").QueryKeyWithDataTag<string[], {
    id: string;
    name: string;
    createdAt: string;
    items: number;
    links: number;
    seq: number;
    scheme: {
        layers: {
            id: string;
            label: string;
        }[];
        kinds: {
            id: string;
            label: string;
            plural: string;
            layer: string;
            fields: {
                id: string;
                label: string;
                type: "address" | "choice" | "choices" | "date" | "number" | "person" | "rich" | "text" | "yesNo";
                options?: string[] | undefined;
                unit?: string | undefined;
                meaning?: boolean | undefined;
            }[];
            informative?: boolean | undefined;
        }[];
        linkKinds: {
            id: string;
            phrase: string;
            reverse: string;
            fromKinds: string[];
            toKinds: string[];
            upstream: "from" | "to";
        }[];
        rules: {
            id: string;
            label: string;
            sentence: string;
            of: {
                kinds: string[];
                field?: {
                    id: string;
                    oneOf: string[];
                } | undefined;
            };
            along: {
                linkKind: string;
                direction: "in" | "out";
            }[];
            steps: number;
            atLeast: number;
            reach: {
                kinds: string[];
                field?: {
                    id: string;
                    oneOf: string[];
                } | undefined;
            };
        }[];
        verification: {
            of: {
                kinds: string[];
                field?: {
                    id: string;
                    oneOf: string[];
                } | undefined;
            };
            verifies: string;
            derives: string | null;
            waivedBy: string;
        };
    };
    collections: {
        id: string;
        name: string;
        holds: "model" | "specification" | "tests";
        prefix: string;
        kind: string;
        withdrawn: boolean;
        items: number;
    }[];
    waiting: {
        gather: number;
        shape: number;
        link: number;
        check: number;
        publish: number;
    };
}, Error>;
export declare const outlineQuery: (project: string) => import("@tanstack/query-core").OmitKeyof<import("@tanstack/react-query").UseQueryOptions<{
    seq: number;
    id: string[];
    node: number[];
    reference: string[];
    title: string[];
    kind: number[];
    collection: number[];
    parent: number[];
    heading: number[];
    state: number[];
    up: number[];
    down: number[];
    suspect: number[];
    gaps: number[];
}, Error, {
    seq: number;
    id: string[];
    node: number[];
    reference: string[];
    title: string[];
    kind: number[];
    collection: number[];
    parent: number[];
    heading: number[];
    state: number[];
    up: number[];
    down: number[];
    suspect: number[];
    gaps: number[];
}, string[]>, "queryFn"> & {
    queryFn?: import("@tanstack/query-core").QueryFunction<{
        seq: number;
        id: string[];
        node: number[];
        reference: string[];
        title: string[];
        kind: number[];
        collection: number[];
        parent: number[];
        heading: number[];
        state: number[];
        up: number[];
        down: number[];
        suspect: number[];
        gaps: number[];
    }, string[], never> | undefined;
} & import("@tanstack/query-core").QueryKeyWithDataTag<string[], {
    seq: number;
    id: string[];
    node: number[];
    reference: string[];
    title: string[];
    kind: number[];
    collection: number[];
    parent: number[];
    heading: number[];
    state: number[];
    up: number[];
    down: number[];
    suspect: number[];
    gaps: number[];
}, Error>;
export declare function useProjectId(): string;
/** The project of the present address; the frame has loaded it before any view shows. */
export declare function useProject(): Project;
export declare function useOutline(): import("@tanstack/react-query").UseQueryResult<{
    seq: number;
    id: string[];
    node: number[];
    reference: string[];
    title: string[];
    kind: number[];
    collection: number[];
    parent: number[];
    heading: number[];
    state: number[];
    up: number[];
    down: number[];
    suspect: number[];
    gaps: number[];
}, Error>;
/** Rows of the outline that belong to a collection, in reading order. */
export declare function rowsOf(outline: OutlineReply, collection: number): number[];
