import { Box, Flex, IconButton } from '@chakra-ui/react';
import { Image } from '@tiptap/extension-image';
import { Link } from '@tiptap/extension-link';
import { Subscript } from '@tiptap/extension-subscript';
import { Superscript } from '@tiptap/extension-superscript';
import { TableKit } from '@tiptap/extension-table';
import { EditorContent, useEditor } from '@tiptap/react';
import StarterKit from '@tiptap/starter-kit';
import { Bold, Italic, List, ListOrdered, Subscript as SubscriptIcon, Superscript as SuperscriptIcon } from 'lucide-react';
import { useRef } from 'react';
import { tidyHtml } from './tidy-html';

interface Props {
  html: string;
  label: string;
  onChange: (html: string) => void;
  autoFocus?: boolean;
}

/** Everything that a stored text may hold, so that nothing of it is lost when a word beside it is changed. */
const extensions = [
  StarterKit.configure({
    heading: false,
    codeBlock: false,
    horizontalRule: false,
    trailingNode: false,
    link: false,
  }),
  // Addresses become links only where somebody made them links, and a click puts the caret.
  Link.extend({ inclusive: false, addProseMirrorPlugins: () => [], addPasteRules: () => [], addInputRules: () => [] }).configure({
    HTMLAttributes: { target: null, rel: null, class: null },
  }),
  Subscript,
  Superscript,
  Image.configure({ inline: true }),
  TableKit.configure({ table: { resizable: false } }),
];

/** Rich text in place: paragraphs, lists, strong and emphasised words, indices. Tables and pictures stay, their words can be edited. */
export default function RichTextEditor({ html, label, onChange, autoFocus = false }: Props) {
  /** How the editor itself writes the text that it was given: that much is no change. */
  const untouched = useRef<string | undefined>(undefined);
  const editor = useEditor({
    extensions,
    content: html,
    autofocus: autoFocus ? 'end' : false,
    editorProps: {
      attributes: { 'aria-label': label, role: 'textbox', dir: 'auto', class: 'rich', style: 'min-height:4.5em;padding:6px 10px;outline:none' },
      // Ctrl Enter stores, whatever it would do to the text.
      handleKeyDown: (_, event) => event.key === 'Enter' && (event.ctrlKey || event.metaKey),
    },
    onUpdate: ({ editor: now }) => {
      const text = tidyHtml(now.getHTML());
      onChange(text === untouched.current ? html : now.isEmpty ? '' : text);
    },
  });
  if (!editor) return null;
  untouched.current ??= tidyHtml(editor.getHTML());
  const marks = [
    { label: 'Bold', icon: Bold, run: () => editor.chain().focus().toggleBold().run() },
    { label: 'Italic', icon: Italic, run: () => editor.chain().focus().toggleItalic().run() },
    { label: 'Index below', icon: SubscriptIcon, run: () => editor.chain().focus().toggleSubscript().run() },
    { label: 'Index above', icon: SuperscriptIcon, run: () => editor.chain().focus().toggleSuperscript().run() },
    { label: 'List', icon: List, run: () => editor.chain().focus().toggleBulletList().run() },
    { label: 'Numbered list', icon: ListOrdered, run: () => editor.chain().focus().toggleOrderedList().run() },
  ];
  return (
    <Box borderWidth="1px" borderColor="border.emphasized" bg="bg.panel" fontFamily="serif" fontSize="16px" lineHeight="1.55">
      <Flex borderBottomWidth="1px" gap="1" px="1">
        {marks.map(({ label: name, icon: Icon, run }) => (
          <IconButton key={name} aria-label={name} title={name} size="2xs" variant="ghost" onMouseDown={(event) => event.preventDefault()} onClick={run}>
            <Icon size={12} />
          </IconButton>
        ))}
      </Flex>
      <EditorContent editor={editor} />
    </Box>
  );
}
