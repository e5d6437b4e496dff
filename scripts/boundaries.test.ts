import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs';
import { join, relative } from 'node:path';
import { describe, expect, it } from 'vitest';

const root = join(import.meta.dirname, '..');

/** Who may import whom: npm's hoisting would let anything run, so this table is held here. */
const allowed: Record<string, string[]> = {
  'packages/core': [],
  'packages/formats': ['@coomb/core'],
  'packages/contract': ['@coomb/core'],
  'apps/server': ['@coomb/core', '@coomb/formats', '@coomb/contract'],
  'apps/web': ['@coomb/core', '@coomb/contract'],
  'apps/standins': [],
  e2e: [],
  demo: [],
};

function filesIn(folder: string): string[] {
  if (!statSync(folder, { throwIfNoEntry: false })) return [];
  return readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    return statSync(path).isDirectory() ? filesIn(path) : /\.tsx?$/.test(name) ? [path] : [];
  });
}

function importsOf(file: string): string[] {
  const text = readFileSync(file, 'utf8');
  return [...text.matchAll(/(?:^|\n)(?:import|export)\s[^'"`;]*?from '([^']+)'|(?:^|\n)import '([^']+)'|\bimport\('([^']+)'\)/g)].map(
    (match) => match[1] ?? match[2] ?? match[3]!,
  );
}

/** Chance that can be repeated is shared by tests; what ships does not know it. */
const isTest = (file: string) => /\.test\.tsx?$|\/testing\//.test(file);

const packageOf = (name: string) => (name.startsWith('@') ? name.split('/').slice(0, 2).join('/') : name.split('/')[0]!);

describe.each(Object.entries(allowed))('%s', (folder, ours) => {
  const files = filesIn(join(root, folder, 'src'));
  const { dependencies = {}, devDependencies = {} } = JSON.parse(readFileSync(join(root, folder, 'package.json'), 'utf8')) as Record<
    string,
    Record<string, string>
  >;

  it('imports only those of our packages that it may', () => {
    const found = files.flatMap((file) =>
      importsOf(file)
        .filter((name) => name.startsWith('@coomb/') && !(isTest(file) && /^@coomb\/(core|formats)\/testing$/.test(name)))
        .map((name) => `${file}: ${name}`),
    );
    const isAllowed = (line: string) => ours.some((one) => line.endsWith(`: ${one}`) || (line.includes(`: ${one}/`) && !line.endsWith('/testing')));
    expect(found.filter((line) => !isAllowed(line))).toEqual([]);
  });

  it('declares every package it imports', () => {
    const known = new Set([...Object.keys(dependencies), ...Object.keys(devDependencies), 'vitest', 'express']);
    const foreign = files.flatMap((file) =>
      importsOf(file)
        .filter((name) => !name.startsWith('.') && !name.startsWith('node:'))
        .map((name) => [packageOf(name), file]),
    );
    expect(foreign.filter(([name]) => !known.has(name!))).toEqual([]);
  });
});

describe('packages/core', () => {
  it('knows no file, network, clock, chance or framework', () => {
    for (const file of filesIn(join(root, 'packages/core/src')).filter((path) => !isTest(path))) {
      const text = readFileSync(file, 'utf8');
      expect(text, file).not.toMatch(/from 'node:|Date\.now|new Date\(\)|Math\.random|fetch\(|process\./);
    }
  });
});

describe('the web application', () => {
  it('calls the server in one place only, and keeps keys in queries', () => {
    for (const file of filesIn(join(root, 'apps/web/src'))) {
      const text = readFileSync(file, 'utf8');
      if (!file.endsWith('shared/api/client.ts')) expect(text, file).not.toMatch(/\bfetch\(/);
    }
  });

  it('draws from no address outside', () => {
    // Tests show what comes from elsewhere, to see that it is not drawn.
    const shipped = filesIn(join(root, 'apps/web/src')).filter((file) => !/\.test\.tsx?$/.test(file));
    for (const file of [...shipped, join(root, 'apps/web/index.html')]) expect(readFileSync(file, 'utf8'), file).not.toMatch(/https?:\/\/(?!www\.w3\.org)/);
  });
});

/** Files of ours that a file imports from its own package, types included. */
function neighboursOf(file: string): string[] {
  return importsOf(file).flatMap((name) => {
    if (!name.startsWith('.')) return [];
    const bare = join(file, '..', name.replace(/\?.*$/, '')).replace(/\.js$/, '');
    return [bare, `${bare}.ts`, `${bare}.tsx`, `${bare}/index.ts`].filter((path) => existsSync(path) && statSync(path).isFile()).slice(0, 1);
  });
}

/** Groups that lead back to themselves: each with more than one member. */
function findCycles(nodes: Iterable<string>, next: (node: string) => Iterable<string>): string[][] {
  const [number, lowest] = [new Map<string, number>(), new Map<string, number>()];
  const path: string[] = [];
  const found: string[][] = [];
  const visit = (node: string): void => {
    number.set(node, number.size);
    lowest.set(node, number.get(node)!);
    path.push(node);
    for (const other of next(node)) {
      if (!number.has(other)) visit(other);
      if (path.includes(other)) lowest.set(node, Math.min(lowest.get(node)!, lowest.get(other)!));
    }
    if (lowest.get(node) !== number.get(node)) return;
    const group = path.splice(path.indexOf(node));
    if (group.length > 1) found.push(group);
  };
  for (const node of nodes) if (!number.has(node)) visit(node);
  return found;
}

describe.each(['packages/core', 'packages/formats', 'packages/contract', 'apps/server', 'apps/web'])('the rooms of %s', (folder) => {
  const source = join(root, folder, 'src');
  const files = filesIn(source).filter((file) => !isTest(file) && !file.includes('/testing/'));
  // Views are loaded when they are first shown: what a manifest loads is no dependency of the list of manifests.
  const neighbours = new Map(files.map((file) => [file, file.endsWith('/view.ts') ? [] : neighboursOf(file).filter((other) => other.startsWith(source))]));
  /** The room a file lies in: a folder, one of `features` or `shared`, or the file itself where it lies at the top. */
  const roomOf = (file: string) => {
    const parts = relative(source, file).split('/');
    if (parts.length === 1) return parts[0]!;
    return /^(?:features|shared)$/.test(parts[0]!) ? parts.slice(0, Math.min(3, parts.length - 1)).join('/') : parts[0]!;
  };

  it('lead back to none: no file imports itself over others', () => {
    expect(files.length).toBeGreaterThan(15);
    expect(findCycles(files, (file) => neighbours.get(file) ?? []).map((group) => group.map((file) => relative(root, file)))).toEqual([]);
  });

  it('lead back to none: no folder needs one that needs it', () => {
    const rooms = new Map<string, Set<string>>();
    for (const [file, others] of neighbours)
      for (const other of others) if (roomOf(other) !== roomOf(file)) rooms.set(roomOf(file), (rooms.get(roomOf(file)) ?? new Set()).add(roomOf(other)));
    expect(findCycles(rooms.keys(), (room) => rooms.get(room) ?? [])).toEqual([]);
  });

  it('say why where they overrule the compiler', () => {
    const silent = files.flatMap((file) =>
      readFileSync(file, 'utf8')
        .split('\n')
        .flatMap((line, index, lines) => {
          if (!/\bas never\b|\bas unknown as\b/.test(line) || /^\s*(?:\*|\/\/)/.test(line)) return [];
          const before = lines.slice(Math.max(0, index - 6), index + 1);
          return before.some((one) => /^\s*(?:\/\/|\/?\*)/.test(one)) ? [] : [`${relative(root, file)}:${index + 1}`];
        }),
    );
    expect(silent).toEqual([]);
  });
});

describe('features of the web application', () => {
  const features = join(root, 'apps/web/src/features');
  /** Which feature may use which: what several need lies in one of these, or in `shared`. */
  const may: Record<string, string[]> = {
    acting: ['item-sheet'],
    'all-links': ['acting', 'linking'],
    bench: ['linking'],
    boundary: ['linking'],
    comparing: ['acting'],
    composition: ['linking'],
    contents: ['read'],
    drawings: ['linking'],
    findings: ['acting'],
    impact: ['acting', 'section'],
    'in-hand': ['acting'],
    gather: ['item-sheet', 'recipes', 'source'],
    matrix: ['acting', 'linking'],
    read: ['exports', 'item-sheet'],
    readiness: ['acting', 'exports', 'section'],
    register: ['acting'],
    scheme: ['section'],
    search: ['acting'],
    structure: ['acting', 'matrix'],
    suspects: ['acting'],
    'trace-tree': ['acting', 'linking'],
    'item-sheet': ['linking'],
  };

  it('use only those that they may', () => {
    const found = filesIn(features)
      .filter((file) => !isTest(file))
      .flatMap((file) =>
        neighboursOf(file).flatMap((other) => {
          const [own, its] = [relative(features, file).split('/')[0]!, relative(features, other).split('/')[0]!];
          return !other.startsWith(`${features}/`) || own === its || may[own]?.includes(its) ? [] : [`${own} → ${its}: ${relative(features, file)}`];
        }),
      );
    expect(found).toEqual([]);
  });

  it('know nothing of the frame around them', () => {
    const found = filesIn(features).filter((file) => !isTest(file) && neighboursOf(file).some((other) => /\/src\/(?:frame\/|views|routes)/.test(other)));
    expect(found).toEqual([]);
  });
});

describe('registries', () => {
  /** Each list, and the files of its folder that it must name, one line each. */
  const lists: [list: string, folder: string, files: RegExp][] = [
    ['apps/server/src/check/figures/families.ts', 'apps/server/src/check/figures', /-figures\.ts$/],
    ['apps/server/src/cli/run-command.ts', 'apps/server/src/cli/commands', /(?<!\.test)\.ts$/],
    ['apps/server/src/exports/writers/index.ts', 'apps/server/src/exports/writers', /-writers?\.ts$/],
    ['apps/server/src/scheme/effects/index.ts', 'apps/server/src/scheme/effects', /^(?!index|effect\.).*(?<!\.test)\.ts$/],
    ['apps/server/src/reports/blocks/index.ts', 'apps/server/src/reports/blocks', /^(?!index|block\.|unknown-block).*(?<!\.test)\.ts$/],
    ['packages/core/src/content-types/content-types.ts', 'packages/core/src/content-types', /^(?!content-type).*(?<!\.test)\.ts$/],
    ['packages/contract/src/saved-views/saved-view-sorts.ts', 'packages/contract/src/saved-views', /^(?!saved-view)/],
    ['packages/formats/src/file-formats.ts', 'packages/formats/src', /^[a-z]+\/format\.ts$/],
    ['packages/core/src/fields/field-types.ts', 'packages/core/src/fields/types', /\.ts$/],
    ['packages/core/src/scheme/starters/index.ts', 'packages/core/src/scheme/starters', /^(?!index|starter\.|shared-fields).*(?<!\.test)\.ts$/],
  ];
  it.each(lists)('%s names every file of its folder', (list, folder, files) => {
    const text = readFileSync(join(root, list), 'utf8');
    const held = filesIn(join(root, folder)).flatMap((file) => {
      const name = relative(join(root, folder), file);
      return files.test(name) ? [name] : [];
    });
    expect(held.length).toBeGreaterThan(1);
    const named = [...text.matchAll(/'(\.\/[\w/-]+)\.js'/g)].map((match) => `${join(list, '..', match[1]!)}.ts`);
    expect(held.filter((name) => !named.includes(join(folder, name)))).toEqual([]);
  });
});
