import { Box, Button, Flex, IconButton, Menu, Portal, Spinner } from '@chakra-ui/react';
import type { Editor } from '@tiptap/core';
import { useEditorState } from '@tiptap/react';
import { Bold, ChevronDown, Italic, List, ListOrdered, Quote, Subscript, Superscript } from 'lucide-react';
import { useRef, useState } from 'react';
import { FormulaForm } from './FormulaForm';
import { LinkForm } from './LinkForm';
import { typedFormula } from './type-formula';

interface Props {
  editor: Editor;
  project: string;
  storing: boolean;
  onPictures: (files: File[]) => void;
  onSplit: (() => void) | undefined;
}

type Form = 'formula' | 'link' | null;

/** What can be done with words, what can be put in, and, within a table, what can be done with it. */
export function EditorBar({ editor, project, storing, onPictures, onSplit }: Props) {
  const [form, setForm] = useState<Form>(null);
  const picker = useRef<HTMLInputElement>(null);
  const here = useEditorState({
    editor,
    selector: ({ editor: now }) => ({
      strong: now.isActive('bold'),
      em: now.isActive('italic'),
      below: now.isActive('subscript'),
      above: now.isActive('superscript'),
      list: now.isActive('bulletList'),
      numbered: now.isActive('orderedList'),
      quote: now.isActive('blockquote'),
      table: now.isActive('table'),
      formula: now.isActive('formula') ? String(now.getAttributes('formula').mathml) : null,
    }),
  });
  const then = () => editor.chain().focus();
  const marks = [
    { label: 'Bold', on: here.strong, icon: Bold, run: () => then().toggleBold().run() },
    { label: 'Italic', on: here.em, icon: Italic, run: () => then().toggleItalic().run() },
    { label: 'Index below', on: here.below, icon: Subscript, run: () => then().toggleSubscript().run() },
    { label: 'Index above', on: here.above, icon: Superscript, run: () => then().toggleSuperscript().run() },
    { label: 'List', on: here.list, icon: List, run: () => then().toggleBulletList().run() },
    { label: 'Numbered list', on: here.numbered, icon: ListOrdered, run: () => then().toggleOrderedList().run() },
    { label: 'Quotation', on: here.quote, icon: Quote, run: () => then().toggleBlockquote().run() },
  ];
  const things: { value: string; label: string; run: () => void }[] = [
    { value: 'table', label: 'Table', run: () => then().insertTable({ rows: 3, cols: 3, withHeaderRow: true }).run() },
    { value: 'picture', label: 'Picture', run: () => picker.current?.click() },
    { value: 'formula', label: 'Formula', run: () => setForm('formula') },
    { value: 'code', label: 'Code', run: () => then().setNode('listing').run() },
    { value: 'link', label: 'Link to an item or a page', run: () => setForm('link') },
  ];
  const close = () => {
    setForm(null);
    editor.commands.focus();
  };
  return (
    <Box borderBottomWidth="1px" fontFamily="body" fontSize="13px" lineHeight="1.3">
      <Flex gap="0.5" px="1" align="center" wrap="wrap">
        {marks.map(({ label: name, on, icon: Icon, run }) => (
          <IconButton
            key={name}
            aria-label={name}
            aria-pressed={on}
            title={name}
            size="2xs"
            variant="ghost"
            bg={on ? 'moss.subtle' : undefined}
            onMouseDown={(event) => event.preventDefault()}
            onClick={run}
          >
            <Icon size={12} />
          </IconButton>
        ))}
        <Menu.Root>
          <Menu.Trigger asChild>
            <Button size="2xs" variant="ghost" ml="1">
              Put in <ChevronDown size={11} />
            </Button>
          </Menu.Trigger>
          <Portal>
            <Menu.Positioner>
              <Menu.Content minW="200px">
                {things.map((thing) => (
                  <Menu.Item key={thing.value} value={thing.value} onClick={thing.run}>
                    {thing.label}
                  </Menu.Item>
                ))}
              </Menu.Content>
            </Menu.Positioner>
          </Portal>
        </Menu.Root>
        {onSplit && (
          <Button
            size="2xs"
            variant="ghost"
            title="Make an item of its own of what stands behind the caret (Ctrl Shift Enter)"
            onMouseDown={(event) => event.preventDefault()}
            onClick={onSplit}
          >
            Split here
          </Button>
        )}
        {here.formula !== null && form !== 'formula' && (
          <Button size="2xs" variant="ghost" onClick={() => setForm('formula')}>
            Change the formula
          </Button>
        )}
        {storing && (
          <Flex align="center" gap="1.5" color="fg.muted" role="status">
            <Spinner size="xs" /> Storing pictures…
          </Flex>
        )}
      </Flex>
      {here.table && <TableBar editor={editor} />}
      {form === 'formula' && (
        <FormulaForm
          typed={here.formula === null ? '' : typedFormula(here.formula)}
          onClose={close}
          onDone={(mathml) => {
            setForm(null);
            editor.chain().focus().insertContent({ type: 'formula', attrs: { mathml } }).run();
          }}
        />
      )}
      {form === 'link' && (
        <LinkForm
          project={project}
          address={String(editor.getAttributes('link').href ?? '')}
          onClose={close}
          onDone={(address, words) => {
            setForm(null);
            const chain = editor.chain().focus().extendMarkRange('link');
            if (address === '') chain.unsetLink().run();
            else if (editor.state.selection.empty && !editor.isActive('link'))
              chain.insertContent({ type: 'text', text: words, marks: [{ type: 'link', attrs: { href: address } }] }).run();
            else chain.setLink({ href: address }).run();
          }}
        />
      )}
      <input
        ref={picker}
        type="file"
        accept="image/png,image/jpeg,image/gif,image/webp,image/bmp,image/svg+xml"
        multiple
        hidden
        aria-label="Pictures to put in"
        onChange={(event) => {
          onPictures([...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
    </Box>
  );
}

/** Rows and columns of the table that the caret stands in. */
function TableBar({ editor }: { editor: Editor }) {
  const then = () => editor.chain().focus();
  const acts: [label: string, run: () => void][] = [
    ['Row above', () => then().addRowBefore().run()],
    ['Row below', () => then().addRowAfter().run()],
    ['Column before', () => then().addColumnBefore().run()],
    ['Column after', () => then().addColumnAfter().run()],
    ['Remove row', () => then().deleteRow().run()],
    ['Remove column', () => then().deleteColumn().run()],
    ['Join or part cells', () => then().mergeOrSplit().run()],
    ['Heads', () => then().toggleHeaderRow().run()],
    ['Remove table', () => then().deleteTable().run()],
  ];
  return (
    <Flex gap="0.5" px="1" wrap="wrap" role="group" aria-label="Table">
      {acts.map(([label, run]) => (
        <Button key={label} size="2xs" variant="ghost" fontWeight="400" onMouseDown={(event) => event.preventDefault()} onClick={run}>
          {label}
        </Button>
      ))}
    </Flex>
  );
}
