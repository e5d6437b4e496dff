import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { ChakraProvider } from '@chakra-ui/react';
import { render, screen } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { system } from './theme';
import { OneLine } from './one-line';

describe('one line of text', () => {
  it('says the whole of it in a tooltip, and takes its own direction', () => {
    render(
      <ChakraProvider value={system}>
        <OneLine text="שער הצפה" />
        <OneLine text="suite › gate opens">
          <b>gate opens</b>
        </OneLine>
      </ChakraProvider>,
    );
    const line = screen.getByText('שער הצפה');
    expect([line.title, line.dir]).toEqual(['שער הצפה', 'auto']);
    expect(screen.getByText('gate opens').parentElement!.title).toBe('suite › gate opens');
  });

  it('is what every view cuts text by, unless the element says the whole itself', () => {
    const filesIn = (folder: string): string[] =>
      readdirSync(folder).flatMap((name) => {
        const path = join(folder, name);
        return statSync(path).isDirectory() ? filesIn(path) : path.endsWith('.tsx') && !path.endsWith('.test.tsx') ? [path] : [];
      });
    const files = filesIn(join(import.meta.dirname, '..', '..'));
    const cut = files.flatMap((path) =>
      [...readFileSync(path, 'utf8').matchAll(/<\w+\s[^<>]*?\btruncate\b(?:[^<>]|=>)*>\s*(?:<\w+[^<>]*>)?/g)].map(([tag]) => ({ path, tag })),
    );
    expect(cut.length).toBeGreaterThan(2);
    expect(cut.filter(({ tag }) => !/\btitle=/.test(tag))).toEqual([]);
  });
});
