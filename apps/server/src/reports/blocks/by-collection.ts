import { readinessReply } from '@coomb/contract';
import { escapeHtml, stateWords } from '@coomb/core';
import { ImageRun, Paragraph, TextRun } from 'docx';
import type { z } from 'zod';
import { buildChartPicture } from '../chart-picture.js';
import { type Cell, right, table } from '../document-parts.js';
import { chartOrder, paperColours } from '../palette.js';
import type { ReportBlock } from './block.js';

const schema = readinessReply.pick({ collections: true });
type ByCollection = z.infer<typeof schema>;

/** A bar per collection: how much of it is in which state. */
export const byCollection: ReportBlock<ByCollection> = {
  type: 'byCollection',
  title: 'Verification by collection',
  schema,
  upgrades: [],
  build: ({ readiness: { collections } }) => ({ collections }),
  isEmpty: ({ collections }) => collections.every(({ states }) => chartOrder.every((state) => states[state] === 0)),
  page: drawBars,
  document: (data) => {
    const picture = buildChartPicture(data.collections);
    if (!picture) return [];
    const rows = data.collections
      .filter((collection) => picture.names.includes(collection.name))
      .map((collection): Cell[] => [collection.name, ...chartOrder.map((state) => right(collection.states[state]))]);
    return [
      new Paragraph({
        spacing: { after: 160 },
        children: [
          new ImageRun({
            type: 'png',
            data: picture.bytes,
            transformation: { width: 600, height: Math.round((600 * picture.height) / picture.width) },
            altText: {
              name: 'chart',
              title: 'Verification by collection',
              description: `One bar per collection, from top: ${picture.names.join(', ')}. The numbers stand in the table below.`,
            },
          }),
        ],
      }),
      table(['Collection', ...chartOrder.map((state) => stateWords[state].label)], rows, [22, ...chartOrder.map(() => 12)]),
      new Paragraph({
        spacing: { before: 80 },
        children: chartOrder.flatMap((state) => [
          new TextRun({ text: '■ ', color: paperColours[state] }),
          new TextRun({ text: `${stateWords[state].label}   `, size: 18 }),
        ]),
      }),
    ];
  },
};

function drawBars({ collections }: ByCollection): string {
  const bars = collections
    .map((collection) => ({
      name: collection.name,
      parts: chartOrder.map((state) => ({ state, count: collection.states[state] })),
      total: chartOrder.reduce((sum, state) => sum + collection.states[state], 0),
    }))
    .filter((bar) => bar.total > 0);
  const height = bars.length * 34;
  const svg = bars.map((bar, row) => {
    let x = 190;
    const rects = bar.parts
      .filter((part) => part.count > 0)
      .map(({ state, count }) => {
        const width = (count / bar.total) * 480;
        const rect = `<rect x="${x.toFixed(1)}" y="${row * 34 + 6}" width="${width.toFixed(1)}" height="20" fill="#${paperColours[state]}"><title>${stateWords[state].label}: ${count}</title></rect>${width > 22 ? `<text x="${(x + width / 2).toFixed(1)}" y="${row * 34 + 20}" text-anchor="middle" class="in">${count}</text>` : ''}`;
        x += width;
        return rect;
      });
    return `<text x="182" y="${row * 34 + 21}" text-anchor="end">${escapeHtml(bar.name.slice(0, 28))}</text>${rects.join('')}<text x="678" y="${row * 34 + 21}">${bar.total}</text>`;
  });
  const legend = chartOrder.map((state) => `<span><i style="background:#${paperColours[state]}"></i>${stateWords[state].label}</span>`).join(' ');
  return `<svg viewBox="0 0 720 ${height}" role="img" aria-label="Share of verification states by collection">${svg.join('')}</svg><p class="legend">${legend}</p>`;
}
