import { Box, Flex } from '@chakra-ui/react';
import type { TrayEntry } from '@coomb/contract';
import {
  alignExchangeRecipe,
  applyExchangeRecipe,
  type ExchangeAttribute,
  type ExchangeDocument,
  type ExchangeMeaning,
  type ExchangeRecipe,
  fieldOfAttribute,
  figure,
  offeredKinds,
  findKind,
  getUsualKind,
} from '@coomb/core';
import { useMemo } from 'react';
import { useProject } from '../../../shared/live/project-queries';
import { Choice } from '../../../shared/ui/choice';
import { Page } from '../../../shared/ui/page';
import { RecipeBar } from '../../recipes/RecipeBar';
import { FieldsOfRest } from '../recipe-forms/FieldsOfRest';
import { ImportBar } from './ImportBar';
import { MeaningChoice } from '../recipe-forms/MeaningChoice';
import { OutcomeList } from './OutcomeList';
import { describeOutcome, proposePrefix } from './outcome-words';
import { RemarksPanel } from './RemarksPanel';
import { useImportTarget } from './use-import-target';
import { useFileRecipe, useOlderRecipe } from './use-file-recipe';

interface Props {
  entry: TrayEntry;
  content: Extract<TrayEntry['content'], { type: 'exchange' }>;
}

/** An exchange file: its types, attributes and relations with their meaning, and the outline they become. */
export function ExchangeGather({ entry, content }: Props) {
  const { scheme } = useProject();
  // The reply is the document but for its pictures, which are fetched by address.
  const document = useMemo(() => ({ ...content, pictures: new Map() }) as unknown as ExchangeDocument, [content]);
  const file = useFileRecipe(entry.id, 'exchange', content.recipe as ExchangeRecipe, (recipe) => alignExchangeRecipe(recipe, document));
  const { recipe, setRecipe, deferred, kept, departures, put } = file;
  const outcome = useMemo(() => applyExchangeRecipe(scheme, deferred, document), [scheme, deferred, document]);
  const to = useImportTarget(entry, { exchangeRecipe: deferred });
  const like = useOlderRecipe(to.older, entry.name, 'exchange', file.isProposed, put);
  const issues = [...departures, ...entry.issues, ...outcome.issues, ...(to.found?.issues ?? [])];
  const isCut = content.total > content.objects.length;
  const setType = (index: number, change: Partial<ExchangeRecipe['types'][number]>) =>
    setRecipe({ ...recipe, types: recipe.types.map((one, at) => (at === index ? { ...one, ...change } : one)) });
  const setRelation = (index: number, change: Partial<ExchangeRecipe['relations'][number]>) =>
    setRecipe({ ...recipe, relations: recipe.relations.map((one, at) => (at === index ? { ...one, ...change } : one)) });
  return (
    <Flex direction="column" h="100%">
      <Box flex="1" minH="0">
        <Page
          title={entry.name}
          lead={`${content.tool ? `Written by ${content.tool}. ` : ''}What has no place here goes out again unchanged.${isCut ? ` Shown by its first ${figure(content.objects.length)} of ${figure(content.total)} objects.` : ''}`}
          fill
          actions={<RecipeBar file={entry.name} body={{ reads: 'exchange', recipe }} kept={kept} like={like} onPut={put} />}
        >
          <Flex h="100%" borderTopWidth="1px">
            <Box w="430px" flexShrink={0} overflow="auto" bg="bg.panel" borderRightWidth="1px" px="4" py="3" fontSize="13.5px">
              {recipe.types.map((type, index) => {
                const known = content.types.find((one) => one.id === type.type);
                if (!known || known.count === 0) return null;
                const rest = type.attributes.flatMap(({ id, name, meaning }, at) => {
                  const attribute = known.attributes.find((one) => one.id === id) as ExchangeAttribute | undefined;
                  return meaning.as === 'ignore' && attribute ? [{ at, name, proposed: () => fieldOfAttribute(attribute) }] : [];
                });
                return (
                  <Box key={type.type} mb="4">
                    <Flex align="center" gap="2" mb="1">
                      <Box flex="1" fontWeight="600">
                        {type.name}{' '}
                        <Box as="span" color="fg.muted" fontWeight="400">
                          {known.count} objects
                        </Box>
                      </Box>
                      <Choice
                        label={`Kind of ${type.name}`}
                        value={type.kind ?? ''}
                        options={[
                          { value: '', label: 'left out' },
                          ...offeredKinds(scheme).map((kind) => ({ value: kind.id, label: kind.plural.toLowerCase() })),
                        ]}
                        onChange={(kind) => setType(index, { kind: kind || null })}
                      />
                    </Flex>
                    {type.kind &&
                      type.attributes.map((attribute, at) => (
                        <Flex key={attribute.id} align="center" gap="2" py="0.5">
                          <Box flex="1" overflowWrap="anywhere" lineHeight="1.25">
                            {attribute.name}
                          </Box>
                          <MeaningChoice
                            scheme={scheme}
                            kind={type.kind!}
                            name={attribute.name}
                            meaning={attribute.meaning}
                            withHeading
                            proposed={() => fieldOfAttribute(known.attributes.find((one) => one.id === attribute.id) as ExchangeAttribute)}
                            onChange={(meaning) =>
                              setType(index, {
                                attributes: type.attributes.map((one, own) => (own === at ? { ...one, meaning: meaning as ExchangeMeaning } : one)),
                              })
                            }
                          />
                        </Flex>
                      ))}
                    {type.kind && (
                      <FieldsOfRest
                        kind={type.kind}
                        rest={rest}
                        what={rest.length === 1 ? 'attribute' : 'attributes'}
                        onMade={(meanings) =>
                          setType(index, { attributes: type.attributes.map((one, at) => ({ ...one, meaning: meanings.get(at) ?? one.meaning })) })
                        }
                      />
                    )}
                  </Box>
                );
              })}
              {recipe.relations.length > 0 && <Box fontWeight="600">Relations</Box>}
              {recipe.relations.map((relation, index) => (
                <Flex key={relation.type} align="center" gap="2" py="0.5">
                  <Box flex="1" overflowWrap="anywhere">
                    {relation.name}{' '}
                    <Box as="span" color="fg.muted">
                      {content.relationTypes.find((one) => one.id === relation.type)?.count ?? 0}
                    </Box>
                  </Box>
                  <Choice
                    label={`Link kind of ${relation.name}`}
                    value={relation.linkKind ? `${relation.linkKind} ${relation.reversed ? 'in' : 'out'}` : ''}
                    width="220px"
                    options={[
                      { value: '', label: 'no link' },
                      ...scheme.linkKinds.flatMap((kind) => [
                        { value: `${kind.id} out`, label: `source ${kind.phrase} target` },
                        { value: `${kind.id} in`, label: `target ${kind.phrase} source` },
                      ]),
                    ]}
                    onChange={(value) => setRelation(index, { linkKind: value.split(' ')[0] || null, reversed: value.endsWith(' in') })}
                  />
                </Flex>
              ))}
            </Box>
            <Flex flex="1" minW="0" direction="column">
              <OutcomeList scheme={scheme} outcome={outcome} issues={issues} />
              <RemarksPanel issues={issues} />
            </Flex>
          </Flex>
        </Page>
      </Box>
      <ImportBar
        entry={entry}
        to={to}
        holds="specification"
        proposedName={content.title || content.outlines[0]?.name || entry.name.replace(/\.[^.]*$/, '')}
        proposedPrefix={proposePrefix(outcome, findKind(scheme, recipe.types.find((type) => type.kind)?.kind ?? '') ?? getUsualKind(scheme))}
        summary={`${describeOutcome(outcome, issues, isCut ? undefined : to.found?.links)}${isCut ? ' among the objects shown' : ''}`}
        wish={{ exchangeRecipe: recipe, ...(kept && { recipe: kept }) }}
        disabled={outcome.drafts.length === 0}
      />
    </Flex>
  );
}
