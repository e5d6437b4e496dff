import { Box } from '@chakra-ui/react';
import { type Editor, getHTMLFromFragment } from '@tiptap/core';
import { TextSelection } from '@tiptap/pm/state';
import { EditorContent, useEditor } from '@tiptap/react';
import { useCallback, useRef, useState } from 'react';
import { useParams } from 'react-router';
import { notify } from '../ui/notices';
import { EditorBar } from './EditorBar';
import { cleanPasted, sayLeft } from './pasted';
import { storeOne, storePictures } from './store-pictures';
import { textExtensions } from './text-schema';
import { tidyHtml } from './tidy-html';

interface Props {
  html: string;
  label: string;
  onChange: (html: string) => void;
  autoFocus?: boolean;
  /** Takes the text before the caret and the text behind it, to make two items of one. */
  onSplit?: ((before: string, behind: string) => void) | undefined;
}

/**
 * Rich text in place: everything that a text may hold can be written, put in, pasted and dropped. Begins with the text that it is given and
 * says that very text again while nothing is changed.
 */
export default function RichTextEditor({ html, label, onChange, autoFocus = false, onSplit }: Props) {
  const project = useParams().project ?? '';
  /** How the editor itself writes the text that it was given: that much is no change. */
  const untouched = useRef<string | undefined>(undefined);
  const [storing, setStoring] = useState(false);
  const held = useRef<Editor | null>(null);
  const split = useRef<(() => void) | undefined>(undefined);

  /** Puts in what came from elsewhere, after its pictures were stored. */
  const putIn = useCallback(
    async (markup: string, left: readonly string[], at?: number) => {
      setStoring(true);
      const { html: whole, lost } = await storePictures(project, markup);
      setStoring(false);
      const editor = held.current;
      if (!editor || editor.isDestroyed) return;
      editor
        .chain()
        .focus(at)
        .insertContent(whole, { parseOptions: { preserveWhitespace: false } })
        .run();
      const told = sayLeft([...left, ...(lost > 0 ? [`${lost === 1 ? 'a picture' : `${lost} pictures`} that could not be read`] : [])]);
      if (told) notify(told, 'info');
    },
    [project],
  );
  const putPictures = useCallback(
    async (files: readonly File[], at?: number) => {
      setStoring(true);
      for (const file of files)
        try {
          const src = await storeOne(project, file);
          if (held.current) putFigure(held.current, { src, alt: altOf(file.name) }, at);
        } catch (error) {
          notify(error instanceof Error ? error.message : 'The picture could not be stored.', 'error');
        }
      setStoring(false);
    },
    [project],
  );
  const editor = useEditor({
    extensions: textExtensions,
    content: html,
    autofocus: autoFocus ? 'end' : false,
    editorProps: {
      attributes: {
        'aria-label': label,
        role: 'textbox',
        'aria-multiline': 'true',
        dir: 'auto',
        class: 'rich',
        style: 'min-height:4.5em;padding:6px 10px;outline:none',
      },
      // Keys that store, whatever they would do to the text.
      handleKeyDown: (_, event) => {
        if (event.key !== 'Enter' || !(event.ctrlKey || event.metaKey || event.altKey)) return false;
        if (event.shiftKey) split.current?.();
        return true;
      },
      handlePaste: (_, event) => {
        const data = event.clipboardData;
        const markup = data?.getData('text/html') ?? '';
        // What is copied inside an editor is what a text may hold already.
        if (/data-pm-slice/.test(markup) && !/<img/.test(markup)) return false;
        const { html: clean, left } = markup ? cleanPasted(markup) : { html: '', left: [] };
        const files = [...(data?.files ?? [])].filter((file) => file.type.startsWith('image/'));
        // A picture that was copied comes as a file, and often as markup that names where it lies.
        if (files.length > 0 && !/[^\s<>]/.test(clean.replace(/<[^>]*>/g, ''))) void putPictures(files);
        else if (clean) void putIn(clean, left);
        else return false;
        return true;
      },
      handleDrop: (view, event, _slice, moved) => {
        const files = [...(event.dataTransfer?.files ?? [])].filter((file) => file.type.startsWith('image/'));
        if (moved || files.length === 0) return false;
        event.preventDefault();
        void putPictures(files, view.posAtCoords({ left: event.clientX, top: event.clientY })?.pos);
        return true;
      },
    },
    onUpdate: ({ editor: now }) => {
      const text = tidyHtml(now.getHTML());
      onChange(text === untouched.current ? html : now.isEmpty ? '' : text);
    },
  });
  held.current = editor;
  split.current = editor && onSplit ? () => onSplit(...divide(editor)) : undefined;
  if (!editor) return null;
  untouched.current ??= tidyHtml(editor.getHTML());
  return (
    <Box borderWidth="1px" borderColor="border.emphasized" bg="bg.panel" fontFamily="serif" fontSize="16px" lineHeight="1.55">
      <EditorBar editor={editor} project={project} storing={storing} onPictures={(files) => void putPictures(files)} onSplit={split.current} />
      <EditorContent editor={editor} />
    </Box>
  );
}

/** The text before the caret and the one behind it, each whole. */
function divide({ state, view }: Editor): [before: string, behind: string] {
  const at = caretOf(view) ?? state.selection.from;
  const write = (part: typeof state.doc) =>
    tidyHtml(getHTMLFromFragment(part.content, state.schema))
      .replace(/^(?:<p><\/p>)+|(?:<p><\/p>)+$/g, '')
      .replace(/^((?:<[^>]+>)*)\s+/, '$1')
      .replace(/\s+((?:<\/[^>]+>)*)$/, '$1')
      .trim();
  return [write(state.doc.cut(0, at)), write(state.doc.cut(at))];
}

/** Where the caret stands in the page: the editor hears of the last keys only with the next frame. */
function caretOf(view: Editor['view']): number | undefined {
  const { anchorNode, anchorOffset, focusNode, focusOffset } = document.getSelection()!;
  if (!anchorNode || !focusNode || !view.dom.contains(anchorNode) || !view.dom.contains(focusNode)) return undefined;
  return Math.min(view.posAtDOM(anchorNode, anchorOffset), view.posAtDOM(focusNode, focusOffset));
}

/** Puts in a picture and the caret into its caption. */
function putFigure(editor: Editor, attrs: { src: string; alt: string }, at?: number): void {
  editor
    .chain()
    .focus(at)
    .insertContent({ type: 'figure', attrs })
    .command(({ tr }) => {
      let caption = -1;
      tr.doc.descendants((node, position) => {
        if (node.type.name === 'figure' && node.attrs.src === attrs.src) caption = position + 1;
      });
      if (caption >= 0) tr.setSelection(TextSelection.create(tr.doc, caption));
      return true;
    })
    .run();
}

const altOf = (name: string) =>
  name
    .replace(/\.[a-z]+$/i, '')
    .replace(/^(?:image|picture)$/i, '')
    .replace(/[_-]+/g, ' ')
    .trim();
