import type { Scheme } from '@coomb/core';

const ROW = 24;
const LABELS = 176;
const LANE = 11;
const STONES = 112;
/** All drawings are of one scale: most schemes have fewer kinds of links than this. */
const LANES = 9;

/** A scheme as ground, small: layers as strata with their names, kinds as stones in them, links as shafts. */
export function StarterDrawing({ scheme }: { scheme: Scheme }) {
  const links = scheme.linkKinds.filter((kind) => !kind.retired);
  const width = LABELS + STONES + Math.max(LANES, links.length) * LANE + 8;
  const height = scheme.layers.length * ROW;
  const depthOf = new Map(scheme.layers.map((layer, depth) => [layer.id, depth]));
  const depths = (keys: readonly string[]) => [...new Set(keys.flatMap((key) => depthOf.get(scheme.kinds.find((kind) => kind.id === key)?.layer ?? '') ?? []))];
  return (
    <svg viewBox={`0 0 ${width} ${height}`} width="100%" style={{ display: 'block' }} aria-hidden="true">
      {scheme.layers.map((layer, depth) => {
        const kinds = scheme.kinds.filter((kind) => kind.layer === layer.id && !kind.retired);
        const stone = Math.min(26, (STONES - 4) / Math.max(1, kinds.length) - 3);
        return (
          <g key={layer.id} transform={`translate(0 ${depth * ROW})`}>
            <rect width={width} height={ROW} fill={`var(--chakra-colors-bg-${depth % 2 ? 'subtle' : 'panel'})`} />
            <line x2={width} stroke="var(--chakra-colors-border-emphasized)" />
            <text x="8" y="16" fontSize="11" fill="var(--chakra-colors-fg)">
              {layer.label}
            </text>
            {kinds.map((kind, index) => (
              <rect
                key={kind.id}
                x={LABELS + index * (stone + 3)}
                y="7"
                width={stone}
                height="11"
                rx="5"
                fill={kind.informative ? 'none' : 'var(--chakra-colors-moss-muted)'}
                stroke="var(--chakra-colors-moss-border)"
                strokeDasharray={kind.informative ? '2 2' : undefined}
              />
            ))}
          </g>
        );
      })}
      {links.map((link, lane) => {
        const [begins, ends] = [depths(link.fromKinds), depths(link.toKinds)];
        const all = [...begins, ...ends];
        if (all.length === 0) return null;
        const x = LABELS + STONES + lane * LANE + LANE / 2;
        const y = (depth: number, end: boolean) => depth * ROW + ROW / 2 + (begins.includes(depth) && ends.includes(depth) ? (end ? -4 : 4) : 0);
        return (
          <g key={link.id} stroke="var(--chakra-colors-fg-subtle)">
            <line
              x1={x}
              x2={x}
              y1={Math.min(...all.map((depth) => y(depth, ends.includes(depth))))}
              y2={Math.max(...all.map((depth) => y(depth, !begins.includes(depth))))}
            />
            {ends.map((depth) => (
              <circle key={depth} cx={x} cy={y(depth, true)} r="2.4" fill="var(--chakra-colors-fg-subtle)" />
            ))}
            {begins.map((depth) => (
              <circle key={depth} cx={x} cy={y(depth, false)} r="2.4" fill="var(--chakra-colors-bg-panel)" />
            ))}
          </g>
        );
      })}
    </svg>
  );
}
