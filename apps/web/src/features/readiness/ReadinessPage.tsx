import { Box, Flex } from '@chakra-ui/react';
import type { Readiness } from '@coomb/contract';
import { type CoverageState, figure, stateWords, verificationStates } from '@coomb/core';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { useFiguresLens } from '../../shared/lens/use-figures-lens';
import { useProject } from '../../shared/live/project-queries';
import { ErrorNote, Loading } from '../../shared/ui/feedback';
import { Page } from '../../shared/ui/page';
import { coverageLooks, StateMark } from '../../shared/ui/states';
import { Distribution } from './Distribution';
import { useFindingRules, useReadiness } from './queries';

/** The checklist in plain sentences, each with the number that decides it; every number opens its items. */
export function ReadinessPage() {
  const project = useProject();
  const { part, says } = useFiguresLens();
  const readiness = useReadiness(project.id, part.lens);
  if (readiness.error) return <ErrorNote error={readiness.error} retry={() => void readiness.refetch()} />;
  if (!readiness.data) return <Loading what="the figures" />;
  const base = `/p/${project.id}/check/figure`;
  const { rules, states, results, links, scheme, collections } = readiness.data;
  return (
    <Page {...(says && { lead: says })}>
      <Box>
        {rules.map((rule) => (
          <RuleLine key={rule.rule} rule={rule} base={base} />
        ))}
        <VerifiedLine states={states} base={base} />
        <LinksLine links={links} base={base} />
        <ConsistencyLine project={project.id} part={part} />
        <SchemeLine figures={scheme} base={base} />
        <Flex gap="10" mt="6" wrap="wrap" align="flex-start">
          <Distribution title="Tests per requirement" note="Too few, or too many?" figures={readiness.data.testsPerRequirement} base={base} />
          <Distribution title="Requirements per test" note="A test of many proves little of each." figures={readiness.data.requirementsPerTest} base={base} />
          <Distribution title="Latest results" note="Of every test case, in all runs." figures={results} base={base} />
        </Flex>
        <Collections collections={collections} base={base} />
      </Box>
    </Page>
  );
}

function FigureLink({ base, id, count, children }: { base: string; id: string; count: number; children?: ReactNode }) {
  return (
    <Box
      asChild
      textDecoration="underline"
      textDecorationColor="border.emphasized"
      textUnderlineOffset="3px"
      _hover={{ textDecorationColor: 'moss.solid' }}
      whiteSpace="nowrap"
    >
      <Link to={`${base}/${id}`}>
        {figure(count)}
        {children}
      </Link>
    </Box>
  );
}

/** One question: how much of it is open, what it asks, the figures that answer it, and a bar of them. */
function Line({ open, colour, asks, figures, bar }: { open: ReactNode; colour: string; asks: string; figures: ReactNode; bar?: ReactNode }) {
  return (
    <Flex py="2.5" borderTopWidth="1px" columnGap={{ base: '3', md: '5' }} rowGap="1" align="center" wrap={{ base: 'wrap', md: 'nowrap' }}>
      <Box minW="54px" flexShrink={0} textAlign="center" fontFamily="serif" fontSize="22px" fontWeight="600" color={colour} lineHeight="1">
        {open}
      </Box>
      <Box flex={{ base: '1 1 12rem', md: '1' }} minW="0">
        <Box fontFamily="serif" fontSize="16px" textWrap="pretty">
          {asks}
        </Box>
        <Flex columnGap="4" fontSize="13px" color="fg.muted" wrap="wrap">
          {figures}
        </Flex>
      </Box>
      {bar && (
        <Flex w={{ base: '100%', md: '200px', lg: '260px', xl: '24vw' }} flexShrink={0} h="12px" gap="1px" aria-hidden="true">
          {bar}
        </Flex>
      )}
    </Flex>
  );
}

function RuleLine({ rule, base }: { rule: Readiness['rules'][number]; base: string }) {
  const order: CoverageState[] = ['met', 'waived', 'suspect', 'notMet'];
  const { counts, applicable } = rule;
  const present = order.filter((state) => counts[state] > 0);
  const done = counts.notMet === 0 && counts.suspect === 0;
  return (
    <Line
      colour={done ? 'moss.fg' : counts.notMet ? 'brick.fg' : 'fg.warning'}
      asks={rule.sentence}
      open={
        applicable === 0 ? (
          '–'
        ) : (
          <Box asChild _hover={{ textDecoration: 'underline' }}>
            <Link to={`${base}/rule:${rule.rule}:${counts.notMet ? 'notMet' : 'met'}`}>{counts.notMet ? figure(counts.notMet) : '✓'}</Link>
          </Box>
        )
      }
      figures={
        <>
          {applicable === 0 && <Box>Nothing it applies to yet.</Box>}
          {present.map((state) => (
            <FigureLink key={state} base={base} id={`rule:${rule.rule}:${state}`} count={counts[state]}>
              {' '}
              {coverageLooks[state].label.toLowerCase()}
            </FigureLink>
          ))}
          {applicable > 0 && (
            <Box>
              of <FigureLink base={base} id={`rule:${rule.rule}:applicable`} count={applicable} />
            </Box>
          )}
        </>
      }
      bar={
        applicable === 0 ? (
          <Box w="100%" bg="bg.muted" />
        ) : (
          present.map((state) => (
            <Box
              key={state}
              bg={state === 'notMet' ? 'transparent' : coverageLooks[state].colour}
              borderWidth={state === 'notMet' ? '1px' : undefined}
              borderStyle="dashed"
              borderColor="state.failing"
              style={{ width: `${(100 * counts[state]) / applicable}%` }}
            />
          ))
        )
      }
    />
  );
}

function VerifiedLine({ states, base }: { states: Readiness['states']; base: string }) {
  const shown = states.filter((one) => one.state !== 'notApplicable');
  const total = shown.reduce((sum, one) => sum + one.count, 0);
  const open = shown.filter((one) => !['verified', 'waived'].includes(one.state)).reduce((sum, one) => sum + one.count, 0);
  const failing = shown.find((one) => one.state === 'failing')?.count ?? 0;
  return (
    <Line
      colour={total === 0 ? 'fg.muted' : open === 0 ? 'moss.fg' : failing ? 'brick.fg' : 'fg.warning'}
      asks="Every need and requirement is verified by fresh results, or waived."
      open={total === 0 ? '–' : open === 0 ? '✓' : <FigureLink base={base} id="state:open" count={open} />}
      figures={
        <>
          {shown
            .filter((one) => one.count > 0)
            .map((one) => (
              <FigureLink key={one.id} base={base} id={one.id} count={one.count}>
                {' '}
                {stateWords[one.state].label.toLowerCase()}
              </FigureLink>
            ))}
          <Box>
            of <FigureLink base={base} id="state:all" count={total} />
          </Box>
        </>
      }
      bar={verificationStates
        .map((state) => shown.find((one) => one.state === state))
        .map((one) => one && one.count > 0 && <Box key={one.state} bg={`state.${one.state}`} style={{ width: `${(100 * one.count) / total}%` }} />)}
    />
  );
}

function LinksLine({ links, base }: { links: Readiness['links']; base: string }) {
  const find = (id: string) => links.find((one) => one.id === id);
  const [suspect, none] = [find('links:suspect'), find('links:none')];
  const open = find('links:open')?.count ?? 0;
  return (
    <Line
      colour={open ? 'fg.warning' : 'moss.fg'}
      asks="Every item is linked, and every link was confirmed against what its ends say now."
      open={open ? <FigureLink base={base} id="links:open" count={open} /> : '✓'}
      figures={
        <>
          {suspect && (
            <FigureLink base={base} id={suspect.id} count={suspect.count}>
              {' '}
              with suspect links
            </FigureLink>
          )}
          {none && (
            <FigureLink base={base} id={none.id} count={none.count}>
              {' '}
              without any link
            </FigureLink>
          )}
        </>
      }
    />
  );
}

/** Rules of consistency: what they found opens in the list of findings, where it is mended. */
function ConsistencyLine({ project, part }: { project: string; part: { lens?: string } }) {
  const rules = useFindingRules(project, part)?.filter(({ group, id }) => group === 'links' && id !== 'suspect');
  if (!rules) return null;
  const wrong = rules.filter(({ weight }) => weight === 'wrong').reduce((sum, { open }) => sum + open, 0);
  const to = (rule?: string) => `/p/${project}/check/findings${rule ? `?rule=${rule}` : ''}`;
  return (
    <Line
      colour={wrong ? 'brick.fg' : 'moss.fg'}
      asks="Links contradict neither each other nor what they join."
      open={
        wrong ? (
          <Box asChild textDecoration="underline">
            <Link to={to()}>{figure(wrong)}</Link>
          </Box>
        ) : (
          '✓'
        )
      }
      figures={rules
        .filter(({ open }) => open > 0)
        .map(({ id, label, open }) => (
          <Box asChild key={id} textDecoration="underline" whiteSpace="nowrap">
            <Link to={to(id)}>
              {figure(open)} {label.toLowerCase()}
            </Link>
          </Box>
        ))}
    />
  );
}

const SCHEME_WORDS: Record<string, string> = {
  'scheme:kinds': 'of retired kinds',
  'scheme:links': 'with links not allowed',
  'scheme:values': 'with values not taken',
  'scheme:required': 'with empty required fields',
};

function SchemeLine({ figures, base }: { figures: Readiness['scheme']; base: string }) {
  const open = figures.find((one) => one.id === 'scheme:open')?.count ?? 0;
  return (
    <Line
      colour={open ? 'fg.warning' : 'moss.fg'}
      asks="Kinds, links and fields are as the scheme says."
      open={open ? <FigureLink base={base} id="scheme:open" count={open} /> : '✓'}
      figures={figures
        .filter((one) => one.count > 0 && SCHEME_WORDS[one.id])
        .map((one) => (
          <FigureLink key={one.id} base={base} id={one.id} count={one.count}>
            {' '}
            {SCHEME_WORDS[one.id]}
          </FigureLink>
        ))}
    />
  );
}

function Collections({ collections, base }: { collections: Readiness['collections']; base: string }) {
  const shown = collections.filter((collection) => collection.rules.length > 0);
  if (shown.length === 0) return null;
  return (
    <Box mt="8">
      <Box fontWeight="600" mb="1">
        By collection
      </Box>
      {shown.map((collection) => (
        <Flex key={collection.id} py="1.5" borderTopWidth="1px" gap="6" wrap="wrap" align="baseline">
          <Box w="13em">{collection.name}</Box>
          {collection.rules.map((rule) => (
            <Box key={rule.rule} color="fg.muted" fontSize="13px">
              {rule.rule}:{' '}
              <Box asChild textDecoration="underline" textDecorationColor="border.emphasized" color={rule.open ? 'brick.fg' : 'fg'}>
                <Link to={`${base}/rule:${rule.rule}:notMet?collection=${collection.id}`}>{figure(rule.open)} open</Link>
              </Box>{' '}
              of {figure(rule.applicable)}
            </Box>
          ))}
          <Flex gap="3" ml="auto">
            {verificationStates
              .filter((state) => state !== 'notApplicable' && collection.states[state] > 0)
              .map((state) => (
                <Flex key={state} gap="1" align="center">
                  <StateMark state={state} bare />
                  <FigureLink base={base} id={`state:${state}?collection=${collection.id}`} count={collection.states[state]} />
                </Flex>
              ))}
          </Flex>
        </Flex>
      ))}
    </Box>
  );
}
