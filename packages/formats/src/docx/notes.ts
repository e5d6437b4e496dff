import { localName, walkXml } from '../xml/walk-xml.js';

export interface Note {
  by: string;
  text: string;
}

/** Footnotes, endnotes or comments by id, as plain words with a line for each paragraph. Separators between notes and text are none. */
export async function readNotes(chunks: AsyncIterable<Uint8Array>): Promise<Map<string, Note>> {
  const notes = new Map<string, Note>();
  let note: Note | undefined;
  let reading = false;
  await walkXml(chunks, {
    open(name, attributes) {
      const local = localName(name);
      if ((local === 'footnote' || local === 'endnote' || local === 'comment') && attributes['w:type'] === undefined) {
        note = { by: attributes['w:author'] ?? '', text: '' };
        notes.set(attributes['w:id'] ?? '', note);
      } else if (local === 'p' && note?.text) note.text += '\n';
      else if (local === 't') reading = note !== undefined;
    },
    close(name) {
      const local = localName(name);
      if (local === 't') reading = false;
      else if (local === 'footnote' || local === 'endnote' || local === 'comment') note = undefined;
    },
    text(text) {
      if (reading) note!.text += text;
    },
  });
  for (const one of notes.values()) one.text = one.text.trim();
  return notes;
}
