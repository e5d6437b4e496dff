const X = 'x'.charCodeAt(0);

/** Which namespace each prefix stands for, element by element. Prefixes may be declared anywhere and mean another thing further inside. */
export class NameSpaces {
  private readonly scopes: Map<string, string>[] = [];
  private readonly changed: boolean[] = [];

  open(attributes: Record<string, string>): void {
    let own: Map<string, string> | undefined;
    for (const name in attributes)
      if (name.charCodeAt(0) === X && name.startsWith('xmlns') && (name.length === 5 || name[5] === ':')) {
        own ??= new Map(this.scopes.at(-1));
        own.set(name.slice(6), attributes[name]!);
      }
    this.changed.push(own !== undefined);
    if (own) this.scopes.push(own);
  }

  close(): void {
    if (this.changed.pop()) this.scopes.pop();
  }

  /** Namespace of a prefix, the empty one for names without; empty where none is declared. */
  find(prefix: string): string {
    return this.scopes.at(-1)?.get(prefix) ?? '';
  }
}

/** Prefix of a name, without its colon; empty for names without one. */
export function prefixOf(name: string): string {
  const at = name.indexOf(':');
  return at < 0 ? '' : name.slice(0, at);
}
