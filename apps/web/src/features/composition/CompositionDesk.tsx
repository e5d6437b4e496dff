import { Box, Button, Flex } from '@chakra-ui/react';
import type { OutlineReply } from '@coomb/contract';
import { type AllowedLink, figure, findAllowedLinks, isUseWithin, phraseAt } from '@coomb/core';
import { useMemo, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { z } from 'zod';
import { useQuick } from '../../shared/address';
import { useIsSeen } from '../../shared/lens/use-is-seen';
import { findRequirements } from '../../shared/live/find-requirements';
import { useProject } from '../../shared/live/project-queries';
import { ofSameLife } from '../../shared/live/same-life';
import { Choice } from '../../shared/ui/choice';
import { useAtHand } from '../../shared/marks/at-hand';
import { notify } from '../../shared/ui/notices';
import { Page } from '../../shared/ui/page';
import { Panes } from '../../shared/ui/panes';
import { useItemAddress } from '../../shared/ui/reference';
import { useRestingFocus } from '../../shared/ui/use-resting-focus';
import { writeDefinition } from '../../shared/drawing/made-definition';
import { KindChoice } from '../linking/KindChoice';
import { settledKind } from '../linking/remembered-kinds';
import { type ChosenLink, LinkedList } from '../linking/LinkedList';
import { useLinksOfCollection, useMakeLink, useUnlink } from '../linking/queries';
import type { address } from './address';
import { type Use, useUses } from './queries';
import { buildRows, keyOf, nameOf } from './use-rows';
import { UseTree } from './UseTree';

type View = z.output<typeof address>;

interface Props {
  root: Use;
  wholes: readonly (Use & { used: boolean })[];
  outline: OutlineReply;
  view: View;
  set: (change: Partial<View>) => void;
}

/** The tree of uses, the list beside it, and links that hold in the chosen use only or in every one. */
export function CompositionDesk({ root, wholes, outline, view, set }: Props) {
  const project = useProject();
  const navigate = useNavigate();
  const itemAddress = useItemAddress();
  const { scheme, collections } = project;
  const frame = useRef<HTMLDivElement>(null);
  // The way down to a use that the address names is unfolded from the beginning.
  const [unfolded, setUnfolded] = useState<ReadonlySet<string>>(() => new Set([keyOf(root), ...prefixesOf(view.use)]));
  const [marked, setMarked] = useState<number>();
  const [asking, setAsking] = useState<{ b: number; allowed: AllowedLink[]; kinds: [string, string] }>();
  const open = [...unfolded];
  const replies = useUses(project.id, open);
  const usesOf = new Map(open.map((key, index) => [key, replies[index]?.data?.uses]));
  const [chosenKey, select] = useQuick(view.use, (use) => set({ use }));
  const rows = buildRows(root, unfolded, (key) => usesOf.get(key));
  const at = Math.max(
    0,
    rows.findIndex((row) => row.key === chosenKey),
  );
  const { use } = rows[at]!;
  /** What links are made with: what the part is a use of, where it is one. */
  const target = use.type ?? use.item;
  const rowOf = useMemo(() => new Map(outline.id.map((id, row) => [id, row])), [outline]);
  const own = rowOf.get(target.id) ?? -1;
  useAtHand([target]);
  const make = useMakeLink(project.id);
  const unlink = useUnlink(project.id);
  const links = ofSameLife(outline, useLinksOfCollection(project.id, target.collection).data);
  const path = use.path.slice(0, use.path.lastIndexOf(target.id) + 1);
  const pathKey = path.join(',');
  const chosen = useMemo(() => {
    const rowOfNode = new Map(outline.node.map((node, row) => [node, row]));
    const found: ChosenLink[] = [];
    for (let link = 0; links && link < links.id.length; link++) {
      const kind = scheme.linkKinds[links.kind[link]!];
      if (!kind || kind.role === 'types' || kind.role === 'composes') continue;
      for (const [end, other, usages, phrase] of [
        [links.from, links.to, links.fromUsage, kind.phrase],
        [links.to, links.from, links.toUsage, kind.reverse],
      ] as const) {
        if (end[link] !== target.node) continue;
        const place = usages[link] ?? -1;
        const row = rowOfNode.get(other[link]!);
        // A link of another use does not hold here.
        if (row !== undefined && (place < 0 || isUseWithin(pathKey.split(','), links.usagePaths[place]!)))
          found.push({ id: links.id[link]!, other: row, phrase, suspect: links.suspect[link] === 1, usage: links.usages[place] ?? null });
      }
    }
    return found;
  }, [links, outline, scheme, target.node, pathKey]);
  const through = useIsSeen();
  useRestingFocus(frame);

  const toggle = (key: string, to?: boolean) =>
    setUnfolded((before) => {
      const next = new Set(before);
      if (to ?? !next.has(key)) next.add(key);
      else next.delete(key);
      return next;
    });
  const isHere = view.hold === 'here' && path.length > 1;
  const propose = (b: number) => {
    if (own < 0 || b < 0 || outline.heading[b]) return notify('Mark an item in the list.', 'info');
    const kindOf = (row: number) => scheme.kinds[outline.kind[row]!]!.id;
    const present = chosen.filter((link) => link.other === b).map((link) => link.phrase);
    const allowed = findAllowedLinks(scheme, kindOf(own), kindOf(b)).filter(
      ({ linkKind, reversed }) => !present.includes(phraseAt(linkKind, reversed ? 'to' : 'from')),
    );
    if (allowed.length === 0)
      return notify(present.length > 0 ? 'These two are linked already.' : `No link kind joins ${target.reference} with ${outline.reference[b]}.`, 'info');
    const settled = settledKind(project.id, kindOf(own), kindOf(b), allowed);
    if (settled) create(b, settled);
    else setAsking({ b, allowed, kinds: [kindOf(own), kindOf(b)] });
  };
  const create = (b: number, { linkKind, reversed }: AllowedLink) => {
    const [from, to] = reversed ? [outline.id[b]!, target.id] : [target.id, outline.id[b]!];
    const usage = isHere ? (reversed ? { toUsage: path } : { fromUsage: path }) : {};
    make.mutate([{ linkKind: linkKind.id, from, to, ...usage }], {
      onSuccess: () =>
        notify(`${nameOf(use)} ${phraseAt(linkKind, reversed ? 'to' : 'from')} ${outline.reference[b]}${isHere ? ', in this use only' : ', in every use'}`),
    });
    setAsking(undefined);
    frame.current?.focus();
  };
  const keys: Record<string, () => void> = {
    ArrowDown: () => select(rows[Math.min(rows.length - 1, at + 1)]!.key),
    ArrowUp: () => select(rows[Math.max(0, at - 1)]!.key),
    ArrowRight: () => use.rows > 0 && (rows[at]!.open ? select(rows[Math.min(rows.length - 1, at + 1)]!.key) : toggle(keyOf(use), true)),
    ArrowLeft: () => {
      if (rows[at]!.open && at > 0) return toggle(keyOf(use), false);
      const above = rows.slice(0, at).findLast((row) => row.depth < rows[at]!.depth);
      if (above) select(above.key);
    },
    Home: () => select(rows[0]!.key),
    End: () => select(rows.at(-1)!.key),
    Enter: () => propose(marked ?? -1),
    h: () => set({ hold: view.hold === 'here' ? 'everywhere' : 'here' }),
    o: () => void navigate(itemAddress(target.reference)),
  };
  const listId = collections.some((one) => one.id === view.list) ? view.list : (findRequirements(project)?.id ?? collections[0]!.id);
  return (
    <Page
      fill
      lead={`${figure(root.rows)} directly in it, ${root.below === null ? 'more uses than can be counted' : `${figure(root.below)} uses in all`}${root.repeats ? '; it contains itself, and is cut there' : ''}${through ? `; what is not seen through “${through.name}” is faint` : ''}`}
      actions={
        <>
          <Button asChild size="2xs" variant="outline">
            <Link to={`/p/${project.id}/shape/drawings/new?${writeDefinition({ sort: 'composition', about: target.id, levels: 2 })}`}>Draw it</Link>
          </Button>
          <Choice
            label="System"
            value={root.item.id}
            options={wholes.map(({ item, used }) => ({ value: item.id, label: used ? `${item.title} (a part elsewhere)` : item.title }))}
            onChange={(id) => set({ root: id, use: '' })}
          />
          <Flex gap="0" role="radiogroup" aria-label="New links hold" borderWidth="1px" borderRadius="l2">
            {(['here', 'everywhere'] as const).map((hold) => (
              <Button
                key={hold}
                size="2xs"
                variant={view.hold === hold ? 'solid' : 'ghost'}
                role="radio"
                aria-checked={view.hold === hold}
                onClick={() => set({ hold })}
                title={hold === 'here' ? 'New links hold in the chosen use only  H' : 'New links hold wherever the component is used  H'}
              >
                {hold === 'here' ? 'link in this use' : 'link everywhere'}
              </Button>
            ))}
          </Flex>
        </>
      }
    >
      <Box h="100%" borderTopWidth="1px">
        <Panes
          id="composition"
          panes={[
            {
              id: 'tree',
              size: 60,
              least: 260,
              content: (
                <Box
                  ref={frame}
                  h="100%"
                  tabIndex={0}
                  outline="none"
                  role="group"
                  aria-label={`Composition of ${root.item.title}`}
                  onKeyDown={(event) => {
                    if (event.ctrlKey || event.metaKey || event.altKey || asking) return;
                    const run = keys[event.key.length === 1 ? event.key.toLowerCase() : event.key];
                    if (!run) return;
                    event.preventDefault();
                    run();
                  }}
                >
                  <UseTree
                    rows={rows}
                    at={at}
                    onSelect={select}
                    onToggle={toggle}
                    onOpen={(one) => void navigate(itemAddress((one.type ?? one.item).reference))}
                  />
                </Box>
              ),
            },
            {
              id: 'list',
              size: 40,
              least: 240,
              content: (
                <LinkedList
                  outline={outline}
                  collection={listId}
                  choice={
                    <Choice
                      label="List beside the composition"
                      value={listId}
                      options={collections.map((one) => ({ value: one.id, label: one.name }))}
                      onChange={(list) => set({ list })}
                    />
                  }
                  about={nameOf(use)}
                  onlyLinked={view.only === 'linked'}
                  setOnlyLinked={(only) => set({ only: only ? 'linked' : 'all' })}
                  links={chosen}
                  onCollection={(list) => set({ list })}
                  marked={marked}
                  onMark={setMarked}
                  onHover={() => {}}
                  onDrag={() => {}}
                  onOpen={(row) => void navigate(itemAddress(outline.reference[row]!))}
                  onLink={propose}
                  onUnlink={(ids) => unlink.mutate([...ids], { onSuccess: () => notify('Link removed. Undo brings it back.') })}
                />
              ),
            },
          ]}
        />
      </Box>
      {asking && (
        <KindChoice
          left={target.reference}
          right={outline.reference[asking.b]!}
          allowed={asking.allowed}
          kinds={asking.kinds}
          onChoose={(allowed) => create(asking.b, allowed)}
          onClose={() => {
            setAsking(undefined);
            frame.current?.focus();
          }}
        />
      )}
    </Page>
  );
}

/** Every path above a path; a use and what it is a use of come together, so that only some of them are keys: the others unfold nothing. */
function prefixesOf(path: string): string[] {
  const ids = path.split(',').filter(Boolean);
  return ids.slice(1).map((_, index) => ids.slice(0, index + 1).join(','));
}
