import { counted } from '@coomb/core';
import { Box, Button, Flex, Grid, Popover, Portal } from '@chakra-ui/react';
import { type ExportFormat, exportCollection, getExportRecipe } from '@coomb/contract';
import { Download } from 'lucide-react';
import { Fragment, type ReactNode, useState } from 'react';
import { type Saved, useModelPartners, useSaveChosen } from './queries';
import { Choice } from '../../shared/ui/choice';
import { ReadBack } from './ReadBack';
import { addressOf } from '../../shared/api/client';

const FORMATS: { id: ExportFormat; name: string; use: string }[] = [
  { id: 'xlsx', name: 'Workbook', use: 'A row for each item, to sort, fill in and send round.' },
  { id: 'csv', name: 'Separated values', use: 'The same for scripts; no cell runs as a formula.' },
  { id: 'md', name: 'Markdown', use: 'To read and keep under version control, with pictures.' },
  { id: 'model', name: 'Model', use: 'The model file that it came from, as it came, with what changed here.' },
  { id: 'xmi', name: 'UML in XMI', use: 'A new model for modelling tools, in the words of UML and SysML; what they have no word for is a profile in it.' },
  { id: 'reqif', name: 'ReqIF', use: "For requirement tools. A partner's file goes out as it came, with what changed here." },
];
/** Of what came from such a model. */
const SAME_MODEL = 'The same model in the way of the standard, for another tool; drawings go along.';
/** So many items are written and read back without being asked to. */
const TRIED_UNASKED = 2000;

/** Saves a whole collection in each format, with the recipe that reads the file back. */
export function SaveAs({ project, collection, count }: { project: string; collection: string; count: number }) {
  const partners = useModelPartners(project, collection);
  const [chosen, choose] = useState('');
  const model = partners.find(({ partner }) => partner === chosen) ?? partners[0];
  const query = partners.length > 1 && model ? { partner: model.partner } : {};
  return (
    <Formats
      project={project}
      model={model}
      saved={{ collection, ...query }}
      partners={
        partners.length > 1 && model ? (
          <Flex gap="2" align="center" mb="3">
            <Box color="fg.muted" flexShrink={0}>
              Model files as in
            </Box>
            <Choice
              label="Whose model file"
              value={model.partner}
              options={partners.map((one) => ({ value: one.partner, label: one.name }))}
              onChange={choose}
              width="100%"
            />
          </Flex>
        ) : undefined
      }
      count={count}
      file={(format) => (
        <a href={addressOf(exportCollection, { project, collection, format }, query)} download aria-label={`Save as .${format}`}>
          Save
        </a>
      )}
      recipe={(format) => (
        <a
          href={addressOf(getExportRecipe, { project, collection, format }, query)}
          download={`${format}.recipe.json`}
          aria-label={`Save the recipe of .${format}`}
          title={`The recipe that reads the .${format} file back`}
        >
          Recipe
        </a>
      )}
    />
  );
}

/** The same for chosen items, of one collection or several. */
export function SaveChosen({ project, items, size }: { project: string; items: readonly string[]; size?: 'xs' | undefined }) {
  const save = useSaveChosen(project, items);
  return (
    <Formats
      project={project}
      saved={{ items }}
      count={items.length}
      size={size}
      file={(format) => (
        <button type="button" disabled={save.isPending} onClick={() => save.mutate({ format, recipe: false })} aria-label={`Save as .${format}`}>
          Save
        </button>
      )}
      recipe={(format) => (
        <button
          type="button"
          disabled={save.isPending}
          onClick={() => save.mutate({ format, recipe: true })}
          aria-label={`Save the recipe of .${format}`}
          title={`The recipe that reads the .${format} file back`}
        >
          Recipe
        </button>
      )}
    />
  );
}

interface FormatsProps {
  project: string;
  saved: Saved;
  count: number;
  size?: 'xs' | undefined;
  /** The model file that the items came from. */
  model?: { name: string; format: string } | undefined;
  /** Choice among those who sent a model file. */
  partners?: ReactNode;
  file: (format: ExportFormat) => ReactNode;
  recipe: (format: ExportFormat) => ReactNode;
}

function Formats({ project, saved, count, size, model, partners, file, recipe }: FormatsProps) {
  const [open, setOpen] = useState(false);
  const [asked, setAsked] = useState<ReadonlySet<ExportFormat>>(new Set());
  return (
    <Popover.Root positioning={{ placement: 'top-end' }} lazyMount unmountOnExit open={open} onOpenChange={(change) => setOpen(change.open)}>
      <Popover.Trigger asChild>
        <Button size={size ?? '2xs'} variant="outline">
          <Download size={12} /> Save as a file…
        </Button>
      </Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content width="500px" fontSize="13px" aria-label="Save as a file">
            <Popover.Body p="4" maxH="calc(100vh - 140px)" overflowY="auto">
              <Box color="fg.muted" mb="3">
                {counted(count, 'item')}
                {'items' in saved ? ' with what stands above' : ', sections counted'}. Each file is written and read back by its recipe right here, so that you
                see what it carries. Nothing is stored by that.
              </Box>
              {partners}
              <Grid templateColumns="1fr auto auto" columnGap="4" rowGap="3" alignItems="baseline">
                {FORMATS.filter(({ id }) => id !== 'model' || model !== undefined).map(({ id, name, use }) => (
                  <Fragment key={id}>
                    <Box>
                      <Flex gap="2" align="baseline">
                        <Box fontWeight="600">{name}</Box>
                        <Box fontFamily="mono" fontSize="12px" color="fg.muted">
                          {id === 'model' ? (/\.\w+$/.exec(model!.name)?.[0] ?? '') : `.${id}`}
                        </Box>
                      </Flex>
                      <Box color="fg.muted" lineHeight="1.35">
                        {id === 'xmi' && model?.format === 'xmi' ? SAME_MODEL : use}
                      </Box>
                      <ReadBack
                        project={project}
                        saved={saved}
                        format={id}
                        asked={count <= TRIED_UNASKED || asked.has(id)}
                        onAsk={() => setAsked(new Set([...asked, id]))}
                      />
                    </Box>
                    <Button asChild size="xs" colorPalette="moss" variant="outline">
                      {file(id)}
                    </Button>
                    <Button asChild size="xs" variant="ghost" fontWeight="400">
                      {recipe(id)}
                    </Button>
                  </Fragment>
                ))}
              </Grid>
            </Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}
