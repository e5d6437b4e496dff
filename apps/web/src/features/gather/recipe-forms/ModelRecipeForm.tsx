import { Box, Flex } from '@chakra-ui/react';
import type { TrayEntry } from '@coomb/contract';
import {
  type ElementRule,
  figure,
  findLinkKind,
  type ModelRecipe,
  offeredKinds,
  offeredLinkKinds,
  proposeField,
  type RelationRule,
  type Scheme,
} from '@coomb/core';
import { ChevronDown, ChevronRight } from 'lucide-react';
import { useState } from 'react';
import { Choice } from '../../../shared/ui/choice';
import { FieldsOfRest } from './FieldsOfRest';
import { MeaningChoice } from './MeaningChoice';

type Content = Extract<TrayEntry['content'], { type: 'model' }>;
type Sort = Content['elementSorts'][number];

interface Props {
  scheme: Scheme;
  content: Content;
  recipe: ModelRecipe;
  onChange: (recipe: ModelRecipe) => void;
}

const GROUPS: { becomes: ElementRule['becomes']; title: string }[] = [
  { becomes: 'items', title: 'Become items' },
  { becomes: 'detail', title: 'Told on the sheet of their owner' },
  { becomes: 'file', title: 'Stay in the file' },
];

/** What the elements and relations of each sort become. Sorts stand where the file proposed them, so that a row does not jump while it is set. */
export function ModelRecipeForm({ scheme, content, recipe, onChange }: Props) {
  const [groups] = useState(() => new Map((content.recipe as ModelRecipe).elements.map(({ sort, becomes }) => [sort, becomes])));
  const rules = new Map(recipe.elements.map((rule) => [rule.sort, rule]));
  const relationRules = new Map(recipe.relations.map((rule) => [rule.sort, rule]));
  const setElement = (changed: ElementRule) => onChange({ ...recipe, elements: recipe.elements.map((rule) => (rule.sort === changed.sort ? changed : rule)) });
  const setRelation = (changed: RelationRule) =>
    onChange({ ...recipe, relations: recipe.relations.map((rule) => (rule.sort === changed.sort ? changed : rule)) });
  return (
    <>
      {GROUPS.map(({ becomes, title }) => {
        const sorts = content.elementSorts.filter(({ id }) => groups.get(id) === becomes && rules.has(id));
        if (sorts.length === 0) return null;
        return (
          <Box as="section" key={becomes} mb="4" aria-label={title}>
            <Box fontWeight="600" mb="0.5">
              {title}
            </Box>
            {sorts.map((sort) => (
              <ElementRow key={sort.id} scheme={scheme} sort={sort} rule={rules.get(sort.id)!} onChange={setElement} />
            ))}
          </Box>
        );
      })}
      {content.relationSorts.length > 0 && (
        <Box as="section" mb="4" aria-label="Relations">
          <Box fontWeight="600" mb="0.5">
            Relations
          </Box>
          {content.relationSorts.map((sort) => {
            const rule = relationRules.get(sort.id);
            return rule && <RelationRow key={sort.id} scheme={scheme} sort={sort} rule={rule} onChange={setRelation} />;
          })}
        </Box>
      )}
      <Box as="section" aria-label="Drawings">
        <Box fontWeight="600" mb="0.5">
          Drawings
        </Box>
        {content.drawings.length === 0 && <Box color="fg.muted">None in this file</Box>}
        {content.drawings.map((drawing) => (
          <Flex key={drawing.id} py="0.5" borderTopWidth="1px" gap="2">
            <Box flex="1" overflowWrap="anywhere">
              {drawing.name || 'Unnamed drawing'}
            </Box>
            <Box color="fg.muted" flexShrink={0}>
              {figure(drawing.shapes)} shapes
            </Box>
          </Flex>
        ))}
      </Box>
    </>
  );
}

function ElementRow({ scheme, sort, rule, onChange }: { scheme: Scheme; sort: Sort; rule: ElementRule; onChange: (rule: ElementRule) => void }) {
  const [open, setOpen] = useState(false);
  const isItems = rule.becomes === 'items' && rule.kind !== null;
  const values = isItems ? rule.values.flatMap((value) => sort.values.find(({ name }) => name === value.name) ?? []) : [];
  const samplesOf = (name: string) => sort.values.find((value) => value.name === name)?.samples ?? [];
  const rest = rule.values.flatMap(({ name, meaning }, at) => (meaning.as === 'ignore' ? [{ at, name, proposed: () => proposeField(samplesOf(name)) }] : []));
  return (
    <Box borderTopWidth="1px" py="0.5">
      <Flex align="center" gap="2">
        <Box flex="1" minW="0" overflowWrap="anywhere" lineHeight="1.25">
          {sort.label}{' '}
          <Box as="span" color="fg.muted" fontVariantNumeric="tabular-nums">
            {figure(sort.count)}
          </Box>
          {values.length > 0 && (
            <Flex asChild align="center" gap="0.5" color="fg.muted" fontSize="12px" cursor="pointer" _hover={{ color: 'fg' }}>
              <button type="button" aria-expanded={open} onClick={() => setOpen(!open)}>
                {open ? <ChevronDown size={12} /> : <ChevronRight size={12} />}
                {values.length === 1 ? '1 value' : `${values.length} values`}
              </button>
            </Flex>
          )}
        </Box>
        <Choice
          label={`What ${sort.label} becomes`}
          width="186px"
          value={isItems ? `kind ${rule.kind}` : rule.becomes}
          options={[
            { value: 'file', label: 'stays in the file' },
            { value: 'detail', label: 'a detail of its owner' },
            ...offeredKinds(scheme).map((kind) => ({ value: `kind ${kind.id}`, label: kind.plural.toLowerCase() })),
          ]}
          onChange={(value) =>
            onChange(
              value.startsWith('kind ') ? { ...rule, becomes: 'items', kind: value.slice(5) } : { ...rule, becomes: value as 'file' | 'detail', kind: null },
            )
          }
        />
      </Flex>
      {open && isItems && (
        <Box pl="4" pb="1">
          {values.map(({ name, count, samples }) => {
            const at = rule.values.findIndex((value) => value.name === name);
            return (
              <Flex key={name} align="center" gap="2" py="0.5">
                <Box flex="1" minW="0" overflowWrap="anywhere" lineHeight="1.25" title={samples.slice(0, 3).join('\n')}>
                  {name}{' '}
                  <Box as="span" color="fg.muted">
                    {figure(count)}
                  </Box>
                </Box>
                <MeaningChoice
                  scheme={scheme}
                  kind={rule.kind!}
                  name={name}
                  meaning={rule.values[at]!.meaning}
                  of="value"
                  proposed={() => proposeField(samples)}
                  onChange={(meaning) => onChange({ ...rule, values: rule.values.map((value, index) => (index === at ? { ...value, meaning } : value)) })}
                />
              </Flex>
            );
          })}
          <FieldsOfRest
            kind={rule.kind!}
            rest={rest}
            what={rest.length === 1 ? 'value' : 'values'}
            onMade={(meanings) => onChange({ ...rule, values: rule.values.map((value, at) => ({ ...value, meaning: meanings.get(at) ?? value.meaning })) })}
          />
        </Box>
      )}
    </Box>
  );
}

function RelationRow({ scheme, sort, rule, onChange }: { scheme: Scheme; sort: Sort; rule: RelationRule; onChange: (rule: RelationRule) => void }) {
  const [first, ...more] = rule.linkKinds;
  const others = more.flatMap((id) => findLinkKind(scheme, id)?.phrase ?? []);
  return (
    <Flex align="center" gap="2" py="0.5" borderTopWidth="1px">
      <Box flex="1" minW="0" overflowWrap="anywhere" lineHeight="1.25">
        {sort.label}{' '}
        <Box as="span" color="fg.muted" fontVariantNumeric="tabular-nums">
          {figure(sort.count)}
        </Box>
        {others.length > 0 && (
          <Box fontSize="12px" color="fg.muted">
            else {others.join(', else ')}
          </Box>
        )}
      </Box>
      <Choice
        label={`Link kind of ${sort.label}`}
        width="220px"
        value={first ? `${first} ${rule.reversed ? 'in' : 'out'}` : ''}
        options={[
          { value: '', label: 'no link' },
          ...offeredLinkKinds(scheme).flatMap((kind) => [
            { value: `${kind.id} out`, label: `source ${kind.phrase} target` },
            { value: `${kind.id} in`, label: `target ${kind.phrase} source` },
          ]),
        ]}
        onChange={(value) => onChange({ ...rule, linkKinds: value ? [value.split(' ')[0]!] : [], reversed: value.endsWith(' in') })}
      />
    </Flex>
  );
}
