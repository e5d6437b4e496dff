import { Box, Flex, IconButton } from '@chakra-ui/react';
import { EditorContent, useEditor } from '@tiptap/react';
import StarterKit from '@tiptap/starter-kit';
import { Bold, Italic, List, ListOrdered } from 'lucide-react';

interface Props {
  html: string;
  label: string;
  onChange: (html: string) => void;
  autoFocus?: boolean;
}

/** Rich text in place: paragraphs, lists, strong and emphasised words. Tables and pictures are shown, not made, here. */
export default function RichTextEditor({ html, label, onChange, autoFocus = false }: Props) {
  const editor = useEditor({
    extensions: [StarterKit.configure({ heading: false, codeBlock: false, horizontalRule: false })],
    content: html,
    autofocus: autoFocus ? 'end' : false,
    editorProps: { attributes: { 'aria-label': label, role: 'textbox', class: 'rich', style: 'min-height:4.5em;padding:6px 10px;outline:none' } },
    onUpdate: ({ editor: now }) => onChange(now.getHTML() === '<p></p>' ? '' : now.getHTML()),
  });
  if (!editor) return null;
  const marks = [
    { label: 'Bold', icon: Bold, run: () => editor.chain().focus().toggleBold().run() },
    { label: 'Italic', icon: Italic, run: () => editor.chain().focus().toggleItalic().run() },
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
