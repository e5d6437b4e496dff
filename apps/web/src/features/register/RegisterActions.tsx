import { Button, IconButton } from '@chakra-ui/react';
import type { RegisterAsked } from '@coomb/contract';
import { addColumn, type RegisterWhat, type RegisterWhere } from '@coomb/core';
import { Download, Printer } from 'lucide-react';
import { memo } from 'react';
import { useLocation } from 'react-router';
import { useProject } from '../../shared/live/project-queries';
import { saveFile } from '../../shared/save-file';
import { KeptViews } from '../../shared/saved-views/KeptViews';
import { Choice } from '../../shared/ui/choice';
import { notifyError } from '../../shared/ui/notices';
import { kindName } from './column-looks';
import { ColumnsForm } from './ColumnsForm';
import { saveAs } from './queries';
import { WhereForm } from './WhereForm';

interface Props {
  what: RegisterWhat;
  where: RegisterWhere;
  /** Both, with the lens that is looked through. */
  asked: RegisterAsked;
  /** The ready register of a kind, or of all. */
  onKind: (kind: string) => void;
  onWhere: (where: RegisterWhere) => void;
  onChange: (change: Partial<RegisterWhat>) => void;
  onPrint: () => void;
}

/** The path of each use stands beside what is used. */
function withUse(columns: RegisterWhat['columns']): RegisterWhat['columns'] {
  if (columns.some(({ way, shown }) => way.length === 0 && shown.sort === 'usage')) return columns;
  const at = columns.findIndex(({ shown }) => shown.sort === 'title') + 1;
  return columns.toSpliced(at, 0, addColumn(columns, { way: [], shown: { sort: 'usage' }, as: 'list' }));
}

/** What is shown, where, in which shape; kept, and saved as a file. */
export const RegisterActions = memo(function RegisterActions({ what, where, asked, onKind, onWhere, onChange, onPrint }: Props) {
  const project = useProject();
  const { scheme } = project;
  const { pathname, search } = useLocation();
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
        label="One row for"
        value={what.rows ?? 'items'}
        options={[
          { value: 'items', label: 'a row for each item' },
          { value: 'usages', label: 'a row for each use' },
        ]}
        onChange={(value) => onChange(value === 'usages' ? { rows: 'usages', shape: 'list', columns: withUse(what.columns) } : { rows: 'items' })}
      />
      <WhereForm where={where} through={asked.where.lens} onChange={onWhere} />
      <Choice
        label="Shape"
        value={what.shape}
        options={[
          { value: 'list', label: 'as a list' },
          { value: 'outline', label: 'as an outline' },
        ]}
        onChange={(value) => onChange({ shape: value as 'list', ...(value === 'outline' && { sort: [], group: [], rows: 'items' as const }) })}
      />
      <ColumnsForm kinds={what.kinds} columns={what.columns} onChange={(next) => onChange({ columns: next })} />
      <KeptViews
        project={project.id}
        sort="register"
        body={{ what: JSON.stringify(asked.what) }}
        addressOf={({ body }) => {
          const params = new URLSearchParams(search);
          params.set('what', String(body?.what ?? ''));
          params.delete('kind');
          return `${pathname}?${params}`;
        }}
      />
      {(['xlsx', 'csv'] as const).map((format) => (
        <Button key={format} size="xs" variant="outline" aria-label={`Save as .${format}`} onClick={() => void save(format)}>
          <Download size={13} /> .{format}
        </Button>
      ))}
      <IconButton size="xs" variant="outline" aria-label="Print" title="Print the register" onClick={onPrint}>
        <Printer size={13} />
      </IconButton>
    </>
  );
});
