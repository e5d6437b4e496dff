import { mergeAttributes, Node } from '@tiptap/core';
import { Code } from '@tiptap/extension-code';
import { Image } from '@tiptap/extension-image';
import { Link } from '@tiptap/extension-link';
import { ListItem } from '@tiptap/extension-list';
import { Subscript } from '@tiptap/extension-subscript';
import { Superscript } from '@tiptap/extension-superscript';
import { TableKit, TableRow } from '@tiptap/extension-table';
import StarterKit from '@tiptap/starter-kit';
import { readElement } from './read-element';

/** A formula: a sign of the line that holds MathML. It is typed in a field of its own and never taken apart here. */
export const Formula = Node.create({
  name: 'formula',
  group: 'inline',
  inline: true,
  atom: true,
  addAttributes: () => ({ mathml: { default: '', rendered: false } }),
  parseHTML: () => [{ tag: 'math', getAttrs: (element) => ({ mathml: element.outerHTML }) }],
  renderHTML: ({ node }) => readElement(String(node.attrs.mathml)) ?? ['span'],
});

/** A picture with a caption. Figures that hold anything else are taken as what they hold. */
export const Figure = Node.create({
  name: 'figure',
  group: 'block',
  content: 'inline*',
  isolating: true,
  defining: true,
  draggable: true,
  addAttributes: () => ({ src: { default: '' }, alt: { default: '' } }),
  parseHTML: () => [
    {
      tag: 'figure',
      getAttrs: (element) => {
        const [picture, caption, ...others] = [...element.children];
        const isOne = picture?.localName === 'img' && others.length === 0 && (!caption || caption.localName === 'figcaption');
        return isOne ? { src: picture.getAttribute('src'), alt: picture.getAttribute('alt') ?? '' } : false;
      },
      contentElement: (element) => (element as Element).querySelector<HTMLElement>('figcaption') ?? document.createElement('figcaption'),
    },
  ],
  renderHTML: ({ HTMLAttributes }) => ['figure', ['img', mergeAttributes(HTMLAttributes, { contenteditable: 'false' })], ['figcaption', 0]],
  addKeyboardShortcuts() {
    // Enter in a caption goes on below the picture.
    return {
      Enter: ({ editor }) => {
        const { $from } = editor.state.selection;
        return (
          $from.parent.type.name === 'figure' &&
          editor
            .chain()
            .insertContentAt($from.after(), { type: 'paragraph' })
            .focus($from.after() + 1)
            .run()
        );
      },
    };
  },
});

/** Lines whose blanks count: code, tables of signs, messages. Words in it may be formatted, as other programs allow. */
export const Listing = Node.create({
  name: 'listing',
  group: 'block',
  content: 'text*',
  code: true,
  defining: true,
  addAttributes: () => ({ code: { default: true, rendered: false } }),
  parseHTML: () => [
    {
      tag: 'pre',
      preserveWhitespace: 'full',
      getAttrs: (element) => ({ code: element.children.length === 1 && element.firstElementChild?.localName === 'code' && element.childNodes.length === 1 }),
      contentElement: (element) => {
        const only = (element as Element).firstElementChild;
        return (element as Element).childNodes.length === 1 && only?.localName === 'code' ? (only as HTMLElement) : (element as HTMLElement);
      },
    },
  ],
  renderHTML: ({ node }) => (node.attrs.code ? ['pre', ['code', 0]] : ['pre', 0]),
  addKeyboardShortcuts() {
    const isHere = () => this.editor.isActive('listing');
    return {
      // Enter makes a line; twice at the end goes on below.
      Enter: ({ editor }) => {
        if (!isHere()) return false;
        const { $from, empty } = editor.state.selection;
        const atEnd = empty && $from.parentOffset === $from.parent.content.size;
        if (atEnd && $from.parent.textContent.endsWith('\n'))
          return editor
            .chain()
            .deleteRange({ from: $from.pos - 1, to: $from.pos })
            .insertContentAt($from.after() - 1, { type: 'paragraph' })
            .focus($from.after())
            .run();
        return editor.commands.insertContent('\n');
      },
      Tab: ({ editor }) => isHere() && editor.commands.insertContent('  '),
      Backspace: ({ editor }) => {
        const { $from, empty } = editor.state.selection;
        return isHere() && empty && $from.parentOffset === 0 && $from.parent.content.size === 0 && editor.commands.setNode('paragraph');
      },
    };
  },
});

/** Everything that a stored text may hold, so that nothing of it is lost when a word beside it is changed. */
export const textExtensions = [
  StarterKit.configure({ heading: false, codeBlock: false, horizontalRule: false, trailingNode: false, link: false, code: false, listItem: false }),
  // Code may be strong, raised or a link as well.
  Code.extend({ excludes: '' }),
  // An item of a list may begin with a list or a table.
  ListItem.extend({ content: 'block+' }),
  // Addresses become links only where somebody made them links, and a click puts the caret.
  Link.extend({
    inclusive: false,
    addAttributes: () => ({ href: { default: null } }),
    addProseMirrorPlugins: () => [],
    addPasteRules: () => [],
    addInputRules: () => [],
  }).configure({
    HTMLAttributes: { target: null, rel: null, class: null },
    // What may stand in a text was decided before it came here, and is decided again when it is stored.
    isAllowedUri: (address) => !/^\s*(?:javascript|data|vbscript):/i.test(address ?? ''),
  }),
  Subscript,
  Superscript,
  Image.configure({ inline: true }),
  TableKit.configure({ table: { resizable: false }, tableRow: false }),
  // Rows at the head of a table stay there.
  TableRow.extend({
    addAttributes: () => ({
      head: {
        default: false,
        parseHTML: (element: HTMLElement) => element.parentElement?.localName === 'thead',
        renderHTML: ({ head }: { head?: boolean }) => (head ? { 'data-head': '' } : {}),
      },
    }),
  }),
  Formula,
  Figure,
  Listing,
];
