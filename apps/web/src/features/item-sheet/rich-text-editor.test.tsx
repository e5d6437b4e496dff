import { ChakraProvider } from '@chakra-ui/react';
import type { Editor } from '@tiptap/react';
import { render, screen } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { system } from '../../shared/ui/theme';
import { usePage } from '../../testing/page';
import RichTextEditor from './RichTextEditor';

const rich =
  '<p>Water H<sub>2</sub>O, 10<sup>3</sup> m<u>!</u> <a href="mailto:desk@weir.example">there</a> <img src="/api/projects/p/files/f" alt="Plan"></p>' +
  '<table><tbody><tr><th>Gate</th><th>Travel</th></tr><tr><td colspan="2">3 m</td></tr></tbody></table><ul><li><p>One</p></li></ul>';

describe('the editor of rich text', () => {
  usePage();
  const open = (html: string) => {
    const seen: string[] = [];
    render(
      <ChakraProvider value={system}>
        <RichTextEditor html={html} label="Text" onChange={(next) => seen.push(next)} />
      </ChakraProvider>,
    );
    const { editor } = screen.getByRole('textbox', { name: 'Text' }) as HTMLElement & { editor: Editor };
    return { editor, seen };
  };

  it('loses nothing that a stored text may hold when a word is added', () => {
    const { editor, seen } = open(rich);
    editor.commands.insertContentAt(1, 'Clean ');
    for (const kept of [
      'Clean Water',
      '<sub>2</sub>',
      '<sup>3</sup>',
      '<u>!</u>',
      'href="mailto:desk@weir.example"',
      'src="/api/projects/p/files/f"',
      'colspan="2"',
      '<th',
      '<li>',
    ])
      expect(seen.at(-1)).toContain(kept);
  });

  it('gives back the very text that it was given when a change is taken back', () => {
    const { editor, seen } = open(rich);
    editor.commands.insertContentAt(1, 'x');
    editor.commands.undo();
    expect(seen.at(-1)).toBe(rich);
  });

  it('has an empty text where nothing is left', () => {
    const { editor, seen } = open('<p>Gone</p>');
    editor.commands.clearContent(true);
    expect(seen.at(-1)).toBe('');
  });
});
