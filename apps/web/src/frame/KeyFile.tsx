import { Button, Flex } from '@chakra-ui/react';
import { readKeyText, type SavedView } from '@coomb/contract';
import { useRef } from 'react';
import { z } from 'zod';
import { parseJson } from '../shared/read-json';
import { saveFile } from '../shared/save-file';
import { useKeepView } from '../shared/saved-views/queries';
import { notify } from '../shared/ui/notices';

interface Props {
  project: string;
  kept: readonly SavedView[];
  /** The key that is on. */
  on: SavedView | undefined;
  onTaken: (id: string) => void;
}

const MOST_BYTES = 200_000;
/** A colour key as it goes from project to project. */
const keyFile = z.object({ what: z.literal('colour key'), name: z.string().trim().min(1).max(80), key: z.unknown() });

/** Writes the key as it is taken into another project. */
export function writeKeyFile({ name, body }: Pick<SavedView, 'name' | 'body'>): string {
  return `${JSON.stringify({ what: 'colour key', name, key: readKeyText(String(body?.key ?? '')) }, null, 2)}\n`;
}

/** The key of a file under a name that no other has; in words what is wrong with it. */
export function readKeyFile(text: string, names: readonly string[]): { name: string; key: string } | string {
  const parsed = keyFile.safeParse(parseJson(text));
  if (!parsed.success) return 'This file is no colour key: it does not say what it is, what it is called and what it holds.';
  const key = readKeyText(JSON.stringify(parsed.data.key));
  if (!key) return `The colour key “${parsed.data.name}” of this file is not whole: an entry has no value or no colour.`;
  let { name } = parsed.data;
  const taken = new Set(names.map((one) => one.toLowerCase()));
  for (let at = 2; taken.has(name.toLowerCase()); at++) name = `${parsed.data.name} (${at})`;
  return { name, key: JSON.stringify(key) };
}

/** Colour keys go from project to project as files. */
export function KeyFile({ project, kept, on, onTaken }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const keep = useKeepView(project);
  const take = async (file: File) => {
    const read =
      file.size > MOST_BYTES
        ? 'This file is too large for a colour key.'
        : readKeyFile(
            await file.text(),
            kept.map(({ name }) => name),
          );
    if (typeof read === 'string') return notify(`${file.name}: ${read}`, 'error');
    keep.mutate({ sort: 'colourKey', name: read.name, body: { key: read.key } }, { onSuccess: ({ id }) => onTaken(id) });
  };
  return (
    <Flex gap="1.5" wrap="wrap">
      {on && (
        <Button size="2xs" variant="outline" onClick={() => saveFile(`${on.name}.json`, new Blob([writeKeyFile(on)], { type: 'application/json' }))}>
          Save as a file
        </Button>
      )}
      <Button size="2xs" variant="outline" onClick={() => input.current?.click()}>
        Take from a file…
      </Button>
      <input
        ref={input}
        type="file"
        accept=".json,application/json"
        aria-label="File of a colour key"
        hidden
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          if (file) void take(file);
          event.target.value = '';
        }}
      />
    </Flex>
  );
}
