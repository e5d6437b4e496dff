import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
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
const isTest = (file: string) => /\.test\.tsx?$/.test(file);

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

describe('explicit lists', () => {
  it('name every figure family and every command that has a file', () => {
    const families = readFileSync(join(root, 'apps/server/src/check/figures/families.ts'), 'utf8');
    for (const file of readdirSync(join(root, 'apps/server/src/check/figures')).filter((name) => name.endsWith('-figures.ts')))
      expect(families).toContain(`./${file.replace('.ts', '.js')}`);
    const commands = readFileSync(join(root, 'apps/server/src/cli/run-command.ts'), 'utf8');
    for (const file of readdirSync(join(root, 'apps/server/src/cli/commands'))) expect(commands).toContain(`./commands/${file.replace('.ts', '.js')}`);
  });
});
