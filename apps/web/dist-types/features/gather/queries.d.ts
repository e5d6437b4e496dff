export declare function useSources(project: string): import("@tanstack/react-query").UseQueryResult<{
    id: string;
    name: string;
    format: string;
    size: number;
    importedAt: string;
    importedBy: string;
    items: number;
    issues: {
        severity: "error" | "note" | "warning";
        code: string;
        at: string;
        message: string;
    }[];
}[], Error>;
export declare function useRuns(project: string): import("@tanstack/react-query").UseQueryResult<{
    id: string;
    name: string;
    at: string;
    counts: {
        passed: number;
        failed: number;
        broken: number;
        skipped: number;
        unmatched: number;
    };
}[], Error>;
export declare function useTrayEntry(project: string, tray: string): import("@tanstack/react-query").UseQueryResult<{
    id: string;
    name: string;
    size: number;
    format: string;
    label: string;
    issues: {
        severity: "error" | "note" | "warning";
        code: string;
        at: string;
        message: string;
    }[];
    content: {
        type: "document";
        blocks: ({
            type: "paragraph";
            at: number;
            level: number;
            list?: {
                depth: number;
                ordered: boolean;
            } | undefined;
            text: string;
            html: string;
        } | {
            type: "table";
            at: number;
            rows: {
                text: string;
                html: string;
                span: number;
                continued?: boolean | undefined;
            }[][];
        })[];
        recipe: {
            name: string;
            kind: string;
            headings: ("ignore" | "item" | "section")[];
            identifier: string;
            bindingWords: string[];
            labels: {
                label: string;
                meaning: {
                    as: "ignore" | "parent" | "reference" | "text" | "title";
                } | {
                    as: "field";
                    field: string;
                } | {
                    as: "link";
                    linkKind: string;
                    reversed: boolean;
                };
            }[];
            tables: {
                header: string;
                use: "fields" | "ignore" | "items" | "text";
                columns: {
                    name: string;
                    meaning: {
                        as: "ignore" | "parent" | "reference" | "text" | "title";
                    } | {
                        as: "field";
                        field: string;
                    } | {
                        as: "link";
                        linkKind: string;
                        reversed: boolean;
                    };
                }[];
            }[];
        };
    } | {
        type: "sheets";
        sheets: {
            name: string;
            rows: string[][];
        }[];
        recipe: {
            name: string;
            sheet: string;
            headerRow: number;
            kind: string;
            columns: {
                name: string;
                meaning: {
                    as: "ignore" | "parent" | "reference" | "text" | "title";
                } | {
                    as: "field";
                    field: string;
                } | {
                    as: "link";
                    linkKind: string;
                    reversed: boolean;
                };
            }[];
        };
    } | {
        type: "model";
        exporter: string;
        outcome: {
            drafts: {
                key: number;
                parent: number;
                role: "item" | "section";
                kind: string;
                reference: string | null;
                externalId: string | null;
                title: string;
                html: string;
                fields: Record<string, string | number | boolean | string[] | null>;
                place: {
                    block?: number | undefined;
                    row?: number | undefined;
                    sheet?: string | undefined;
                    element?: string | undefined;
                    says: string;
                };
            }[];
            links: {
                draft: number;
                linkKind: string;
                reversed: boolean;
                target: string;
                place: {
                    block?: number | undefined;
                    row?: number | undefined;
                    sheet?: string | undefined;
                    element?: string | undefined;
                    says: string;
                };
            }[];
            issues: {
                severity: "error" | "note" | "warning";
                code: string;
                at: string;
                message: string;
            }[];
        };
        drawings: {
            name: string;
            shapes: number;
        }[];
        relations: number;
    } | {
        type: "results";
        name: string;
        at: string | null;
        matches: {
            suite: string;
            name: string;
            outcome: "broken" | "failed" | "passed" | "skipped";
            line: number;
            message: string;
            test: {
                id: string;
                reference: string;
                title: string;
            } | null;
            reason: "property" | "reference" | "title" | null;
            ambiguous: boolean;
        }[];
    };
}, Error>;
export declare function useUpload(project: string, onRead: (tray: string) => void): import("@tanstack/react-query").UseMutationResult<{
    id: string;
    name: string;
    size: number;
    format: string;
    label: string;
    issues: {
        severity: "error" | "note" | "warning";
        code: string;
        at: string;
        message: string;
    }[];
    content: {
        type: "document";
        blocks: ({
            type: "paragraph";
            at: number;
            level: number;
            list?: {
                depth: number;
                ordered: boolean;
            } | undefined;
            text: string;
            html: string;
        } | {
            type: "table";
            at: number;
            rows: {
                text: string;
                html: string;
                span: number;
                continued?: boolean | undefined;
            }[][];
        })[];
        recipe: {
            name: string;
            kind: string;
            headings: ("ignore" | "item" | "section")[];
            identifier: string;
            bindingWords: string[];
            labels: {
                label: string;
                meaning: {
                    as: "ignore" | "parent" | "reference" | "text" | "title";
                } | {
                    as: "field";
                    field: string;
                } | {
                    as: "link";
                    linkKind: string;
                    reversed: boolean;
                };
            }[];
            tables: {
                header: string;
                use: "fields" | "ignore" | "items" | "text";
                columns: {
                    name: string;
                    meaning: {
                        as: "ignore" | "parent" | "reference" | "text" | "title";
                    } | {
                        as: "field";
                        field: string;
                    } | {
                        as: "link";
                        linkKind: string;
                        reversed: boolean;
                    };
                }[];
            }[];
        };
    } | {
        type: "sheets";
        sheets: {
            name: string;
            rows: string[][];
        }[];
        recipe: {
            name: string;
            sheet: string;
            headerRow: number;
            kind: string;
            columns: {
                name: string;
                meaning: {
                    as: "ignore" | "parent" | "reference" | "text" | "title";
                } | {
                    as: "field";
                    field: string;
                } | {
                    as: "link";
                    linkKind: string;
                    reversed: boolean;
                };
            }[];
        };
    } | {
        type: "model";
        exporter: string;
        outcome: {
            drafts: {
                key: number;
                parent: number;
                role: "item" | "section";
                kind: string;
                reference: string | null;
                externalId: string | null;
                title: string;
                html: string;
                fields: Record<string, string | number | boolean | string[] | null>;
                place: {
                    block?: number | undefined;
                    row?: number | undefined;
                    sheet?: string | undefined;
                    element?: string | undefined;
                    says: string;
                };
            }[];
            links: {
                draft: number;
                linkKind: string;
                reversed: boolean;
                target: string;
                place: {
                    block?: number | undefined;
                    row?: number | undefined;
                    sheet?: string | undefined;
                    element?: string | undefined;
                    says: string;
                };
            }[];
            issues: {
                severity: "error" | "note" | "warning";
                code: string;
                at: string;
                message: string;
            }[];
        };
        drawings: {
            name: string;
            shapes: number;
        }[];
        relations: number;
    } | {
        type: "results";
        name: string;
        at: string | null;
        matches: {
            suite: string;
            name: string;
            outcome: "broken" | "failed" | "passed" | "skipped";
            line: number;
            message: string;
            test: {
                id: string;
                reference: string;
                title: string;
            } | null;
            reason: "property" | "reference" | "title" | null;
            ambiguous: boolean;
        }[];
    };
}, Error, File, unknown>;
/** Starts the import and waits until its job has ended. */
export declare function useImport(project: string, tray: string): import("@tanstack/react-query").UseMutationResult<{
    id: string;
    label: string;
    state: "cancelled" | "done" | "failed" | "running";
    progress: number;
    step: string;
    message: string;
    outcome: {
        collection: string | null;
        items: number;
        links: number;
        results: number;
        issues: {
            severity: "error" | "note" | "warning";
            code: string;
            at: string;
            message: string;
        }[];
    } | null;
}, Error, {
    collection?: {
        id: string;
    } | {
        name: string;
        prefix: string;
        holds: "model" | "specification" | "tests";
    } | undefined;
    documentRecipe?: {
        name: string;
        kind: string;
        headings: ("ignore" | "item" | "section")[];
        identifier: string;
        bindingWords: string[];
        labels: {
            label: string;
            meaning: {
                as: "ignore" | "parent" | "reference" | "text" | "title";
            } | {
                as: "field";
                field: string;
            } | {
                as: "link";
                linkKind: string;
                reversed: boolean;
            };
        }[];
        tables: {
            header: string;
            use: "fields" | "ignore" | "items" | "text";
            columns: {
                name: string;
                meaning: {
                    as: "ignore" | "parent" | "reference" | "text" | "title";
                } | {
                    as: "field";
                    field: string;
                } | {
                    as: "link";
                    linkKind: string;
                    reversed: boolean;
                };
            }[];
        }[];
    } | undefined;
    sheetRecipe?: {
        name: string;
        sheet: string;
        headerRow: number;
        kind: string;
        columns: {
            name: string;
            meaning: {
                as: "ignore" | "parent" | "reference" | "text" | "title";
            } | {
                as: "field";
                field: string;
            } | {
                as: "link";
                linkKind: string;
                reversed: boolean;
            };
        }[];
    } | undefined;
    runName?: string | undefined;
}, unknown>;
