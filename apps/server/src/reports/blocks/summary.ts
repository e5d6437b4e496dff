import { readinessReply } from '@coomb/contract';
import { counted, sharePercent, stateWords } from '@coomb/core';
import { Paragraph } from 'docx';
import type { z } from 'zod';
import { right, table } from '../document-parts.js';
import { paperColours } from '../palette.js';
import type { ReportBlock } from './block.js';

const schema = readinessReply.pick({ states: true, results: true });
type Summary = z.infer<typeof schema>;

/** How many of each state, and what the tests said. */
export const summary: ReportBlock<Summary> = {
  type: 'summary',
  title: 'Summary',
  schema,
  upgrades: [],
  build: ({ readiness: { states, results } }) => ({ states, results }),
  ownPage: true,
  page: (data, { figure }) => {
    const { states, total, results } = say(data);
    const rows = states.map(
      (one) =>
        `<tr><td><i style="background:#${paperColours[one.state]}"></i>${stateWords[one.state].label}</td><td class="n">${figure(one.id, one.count)}</td><td class="n">${sharePercent(one.count, total)}</td><td>${stateWords[one.state].ofMany}</td></tr>`,
    );
    return `<p>${results}</p><table><thead><tr><th>State</th><th class="n">Count</th><th class="n">Share</th><th>Meaning</th></tr></thead><tbody>${rows.join('')}</tbody></table>`;
  },
  document: (data) => {
    const { states, total, results } = say(data);
    return [
      new Paragraph({ spacing: { after: 160 }, text: results }),
      table(
        ['State', 'Count', 'Share', 'Meaning'],
        states.map((one) => [
          { text: stateWords[one.state].label, bold: true },
          right(one.count),
          right(sharePercent(one.count, total)),
          stateWords[one.state].ofMany,
        ]),
        [18, 9, 11, 62],
      ),
    ];
  },
};

function say(data: Summary) {
  const all = data.states.filter((one) => one.state !== 'notApplicable');
  const total = all.reduce((sum, one) => sum + one.count, 0);
  const results = data.results.map((one) => `${one.count} ${one.label.toLowerCase().replace('tests ', '')}`).join(', ');
  return {
    states: all.filter((one) => one.count > 0),
    total,
    results: `${counted(total, 'requirement or need', 'requirements and needs')}; test cases: ${results}.`,
  };
}
