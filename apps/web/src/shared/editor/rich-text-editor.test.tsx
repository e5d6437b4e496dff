import type { Editor } from '@tiptap/react';
import { storePicture } from '@coomb/contract';
import { fireEvent, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import { answer, aProject, calls, idOf, Refusal, show, usePage } from '../../testing/page';
import RichTextEditor from './RichTextEditor';

const rich =
  '<p>Water H<sub>2</sub>O, 10<sup>3</sup> m<u>!</u> <a href="mailto:desk@weir.example">there</a> <img src="/api/projects/p/files/f" alt="Plan"></p>' +
  '<table><tbody><tr><th>Gate</th><th>Travel</th></tr><tr><td colspan="2">3 m</td></tr></tbody></table><ul><li><p>One</p></li></ul>';

describe('the editor of rich text', () => {
  usePage();
  const open = (html: string) => {
    const seen: string[] = [];
    show(<RichTextEditor html={html} label="Text" onChange={(next) => seen.push(next)} />);
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

  it('splits where the caret stands in the page, also before the editor has heard of the last keys', () => {
    const halves: string[][] = [];
    show(<RichTextEditor html="<p>The gate shall close. It tells the desk.</p>" label="Text" onChange={() => {}} onSplit={(...both) => halves.push(both)} />);
    const field = screen.getByRole('textbox', { name: 'Text' });
    const words = field.querySelector('p')!.firstChild!;
    const splitAt = (offset: number) => {
      document.getSelection()!.setBaseAndExtent(words, offset, words, offset);
      fireEvent.keyDown(field, { key: 'Enter', ctrlKey: true, shiftKey: true });
    };
    splitAt(4);
    splitAt(21);
    expect(halves).toEqual([
      ['<p>The</p>', '<p>gate shall close. It tells the desk.</p>'],
      ['<p>The gate shall close.</p>', '<p>It tells the desk.</p>'],
    ]);
  });

  const address = `/api/projects/${aProject.id}/files/${idOf(90)}`;
  const picture = new File([new Uint8Array([0x89, 0x50])], 'Gate_from below.png', { type: 'image/png' });
  const paste = (data: { html?: string; files?: File[] }) =>
    fireEvent.paste(screen.getByRole('textbox', { name: 'Text' }), {
      clipboardData: { getData: (type: string) => (type === 'text/html' ? (data.html ?? '') : ''), files: data.files ?? [], types: [] },
    });

  it('stores a pasted picture and stands a caption below it', async () => {
    answer(storePicture, { id: idOf(90), mediaType: 'image/png', address });
    const { editor, seen } = open('<p>Look:</p>');
    paste({ files: [picture] });
    await waitFor(() => expect(seen.at(-1)).toContain('<figure>'));
    expect(seen.at(-1)).toContain(`<figure><img src="${address}" alt="Gate from below"></figure>`);
    editor.commands.insertContent('From below');
    expect(seen.at(-1)).toContain('<figcaption>From below</figcaption>');
  });

  it('says why a picture was not stored, and leaves the text as it is', async () => {
    answer(storePicture, () => {
      throw new Refusal('input-invalid', 'Gate.png is no picture that can be shown.', 400);
    });
    const { seen } = open('<p>Look:</p>');
    paste({ files: [picture] });
    expect(await screen.findByText('Gate.png is no picture that can be shown.')).toBeTruthy();
    expect(seen).toEqual([]);
  });

  it('keeps the structure of what is pasted, tells what it left out', async () => {
    const { seen } = open('<p></p>');
    paste({ html: '<p style="color:red">Gate</p><ol><li>one</li></ol><img src="file:///x.png">' });
    await waitFor(() => expect(seen.at(-1)).toContain('<ol><li>one</li></ol>'));
    expect(await screen.findByText('Pasted without colours and fonts, 1 picture that lies elsewhere.')).toBeTruthy();
    expect(calls.filter(({ call }) => call.startsWith('POST'))).toEqual([]);
  });

  it('puts in a formula that is typed, and lets it be changed', async () => {
    const { editor, seen } = open('<p>Flow</p>');
    editor.commands.setTextSelection(5);
    await userEvent.click(screen.getByRole('button', { name: 'Put in' }));
    await userEvent.click(await screen.findByRole('menuitem', { name: 'Formula' }));
    const field = await screen.findByRole('textbox', { name: 'Formula, as TeX' });
    await userEvent.click(field);
    await userEvent.paste('\\frac{V}{t}');
    await userEvent.keyboard('{Enter}');
    expect(seen.at(-1)).toContain('<mfrac><mi>V</mi><mi>t</mi></mfrac>');
    editor.commands.setNodeSelection(5);
    await userEvent.click(await screen.findByRole('button', { name: 'Change the formula' }));
    expect(await screen.findByDisplayValue('\\frac{V}{t}')).toBeTruthy();
  });

  it('parts lines of code by Enter and goes on below after two', async () => {
    const { editor, seen } = open('<pre><code>open();</code></pre>');
    editor.commands.setTextSelection(8);
    for (let times = 0; times < 2; times++) fireEvent.keyDown(screen.getByRole('textbox', { name: 'Text' }), { key: 'Enter', code: 'Enter', keyCode: 13 });
    editor.commands.insertContent('below');
    expect(seen.at(-1)).toBe('<pre><code>open();</code></pre><p>below</p>');
  });
});
