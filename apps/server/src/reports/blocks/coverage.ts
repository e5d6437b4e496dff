import { readinessReply } from '@coomb/contract';
import { escapeHtml, sharePercent } from '@coomb/core';
import type { z } from 'zod';
import { type Cell, right, table } from '../document-parts.js';
import type { ReportBlock } from './block.js';

const schema = readinessReply.pick({ rules: true });
type Coverage = z.infer<typeof schema>;

/** Every coverage rule with its sentence and its counts. */
export const coverage: ReportBlock<Coverage> = {
  type: 'coverage',
  title: 'Coverage',
  schema,
  upgrades: [],
  build: ({ readiness: { rules } }) => ({ rules }),
  page: ({ rules }, { figure }) => {
    const cell = (rule: string, state: string, count: number) => `<td class="n">${figure(`rule:${rule}:${state}`, count)}</td>`;
    const rows = rules.map(
      (rule) =>
        `<tr><td><b>${escapeHtml(rule.label)}</b><br><small>${escapeHtml(rule.sentence)}</small></td>${cell(rule.rule, 'met', rule.counts.met)}${cell(rule.rule, 'suspect', rule.counts.suspect)}${cell(rule.rule, 'waived', rule.counts.waived)}${cell(rule.rule, 'notMet', rule.counts.notMet)}<td class="n">${sharePercent(rule.counts.met + rule.counts.waived, rule.applicable)}</td></tr>`,
    );
    return `<table><thead><tr><th>Rule</th><th class="n">Met</th><th class="n">Met by suspect links only</th><th class="n">Waived</th><th class="n">Not met</th><th class="n">Met or waived</th></tr></thead><tbody>${rows.join('')}</tbody></table>`;
  },
  document: ({ rules }) => {
    const rows = rules.map((rule): Cell[] => [
      { text: rule.label, bold: true },
      rule.sentence,
      right(rule.counts.met),
      right(rule.counts.suspect),
      right(rule.counts.waived),
      right(rule.counts.notMet),
      right(sharePercent(rule.counts.met + rule.counts.waived, rule.applicable)),
    ]);
    return [table(['Rule', 'In words', 'Met', 'By suspect links only', 'Waived', 'Not met', 'Met or waived'], rows, [17, 31, 8, 13, 10, 9, 12])];
  },
};
