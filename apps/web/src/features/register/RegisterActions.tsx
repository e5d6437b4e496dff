import { Button } from '@chakra-ui/react';
import type { RegisterAsked } from '@coomb/contract';
import type { RegisterWhat, RegisterWhere } from '@coomb/core';
import { Download } from 'lucide-react';
import { useProject } from '../../shared/live/project-queries';
import { saveFile } from '../../shared/save-file';
import { KeptViews } from '../../shared/saved-views/KeptViews';
import { Choice } from '../../shared/ui/choice';
import { notifyError } from '../../shared/ui/notices';
import { kindName } from './column-looks';
import { ColumnsForm } from './ColumnsForm';
import { saveAs } from './queries';

interface Props {
  what: RegisterWhat;
  where: RegisterWhere;
  /** Both, with the lens that is looked through. */
  asked: RegisterAsked;
  /** The ready register of a kind, or of all. */
  onKind: (kind: string) => void;
  onWhere: (where: RegisterWhere) => void;
  onChange: (change: Partial<RegisterWhat>) => void;
}

/** What is shown, where, in which shape; kept, and saved as a file. */
export function RegisterActions({ what, where, asked, onKind, onWhere, onChange }: Props) {
  const project = useProject();
  const { scheme } = project;
  const kinds = scheme.kinds.filter(({ retired }) => !retired);
  const save = (format: 'xlsx' | 'csv') =>
    saveAs(project.id, format, { ...asked, name: kindName(what, scheme) }).then(({ name, blob }) => saveFile(name, blob), notifyError);
  return (
    <>
      <Choice
        label="What it shows"
        value={what.kinds.length === 1 ? what.kinds[0]! : what.kinds.length === 0 ? 'all' : ''}
        options={[
          ...(what.kinds.length > 1 ? [{ value: '', label: 'several kinds' }] : []),
          { value: 'all', label: 'items of every kind' },
          ...kinds.map(({ id, plural }) => ({ value: id, label: plural })),
        ]}
        onChange={(value) => value && onKind(value)}
      />
      <Choice
        label="Where"
        value={where.collections.join()}
        options={[{ value: '', label: 'everywhere' }, ...project.collections.map(({ id, name }) => ({ value: id, label: `in ${name}` }))]}
        onChange={(value) => onWhere({ collections: value ? [value] : [], below: [] })}
      />
      <Choice
        label="Shape"
        value={what.shape}
        options={[
          { value: 'list', label: 'as a list' },
          { value: 'outline', label: 'as an outline' },
        ]}
        onChange={(value) => onChange({ shape: value as 'list', ...(value === 'outline' && { sort: [], group: [] }) })}
      />
      <ColumnsForm kinds={what.kinds} columns={what.columns} onChange={(next) => onChange({ columns: next })} />
      <KeptViews project={project.id} sort="register" body={{ what: JSON.stringify(what) }} />
      {(['xlsx', 'csv'] as const).map((format) => (
        <Button key={format} size="xs" variant="outline" aria-label={`Save as .${format}`} onClick={() => void save(format)}>
          <Download size={13} /> .{format}
        </Button>
      ))}
    </>
  );
}
