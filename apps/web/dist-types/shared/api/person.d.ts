/** Name under which changes are recorded: kept in this browser. */
export declare function readPerson(): string;
export declare function writePerson(name: string): void;
