import type { ReportBody } from '@coomb/contract';
import { counted, escapeHtml, sharePercent, stateWords } from '@coomb/core';
import { chartOrder, paperColours } from './palette.js';
import { fontFaces } from './report-fonts.js';

const date = (iso: string) => new Intl.DateTimeFormat('en-GB', { dateStyle: 'long', timeStyle: 'short', timeZone: 'UTC' }).format(new Date(iso));

/**
 * The report as one web page that needs nothing else: no script, no outside file. `base` is the whole address of the live project, so that
 * links lead there from a page that was saved or sent; what they are called says all without following them.
 */
export function buildReportPage(number: number, body: ReportBody, base: string): string {
  const link = (reference: string) => `<a href="${base}?item=${encodeURIComponent(reference)}">${escapeHtml(reference)}</a>`;
  const sections: [string, string][] = [
    ['Summary', buildSummary(body, base)],
    ['Verification by collection', buildChart(body)],
    ['Coverage', buildCoverage(body, base)],
    ...(body.since ? ([['What changed', buildChanges(body, link)]] as [string, string][]) : []),
    ['Gaps', buildGaps(body, link)],
    ...(body.matrix.rows.length > 0 ? ([['Trace matrix', buildMatrix(body, link)]] as [string, string][]) : []),
  ];
  return `<!doctype html>
<html lang="en-GB"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<title>${escapeHtml(body.title)} · ${escapeHtml(body.project)}</title>
<style>${fontFaces()}${style}</style></head><body><main>
<header class="cover"><p class="project">${escapeHtml(body.project)}</p><h1>${escapeHtml(body.title)}</h1>
<p>Report ${number} · ${date(body.at)} UTC · ${escapeHtml(body.person)} · as of change ${body.seq}</p>${body.parts ? `<p>About ${escapeHtml(describeParts(body.parts))}.</p>` : ''}${body.note ? `<p class="note">${escapeHtml(body.note).replace(/\n/g, '<br>')}</p>` : ''}</header>
<nav><h2>Contents</h2><ol>${sections.map(([title], index) => `<li><a href="#s${index}">${title}</a></li>`).join('')}</ol></nav>
${sections.map(([title, html], index) => `<section id="s${index}"><h2>${index + 1} ${title}</h2>${html}</section>`).join('\n')}
<footer>Made by Coomb from live data. Figures and references lead to the project at ${escapeHtml(base)}, for whoever can reach it.</footer>
</main></body></html>`;
}

/** Opens the items of a figure. A report about parts opens them where one collection is the part; else the live figure would count others too. */
function figureLink({ parts }: ReportBody, base: string, id: string, count: number): string {
  if (parts && (parts.collections.length !== 1 || parts.sections.length > 0)) return String(count);
  const query = parts ? `?collection=${parts.collections[0]!.id}` : '';
  return `<a href="${base}/check/figure/${encodeURIComponent(id)}${query}">${count}</a>`;
}

/** "System requirements, sections Gates and Gauges". */
export function describeParts(parts: NonNullable<ReportBody['parts']>): string {
  const names = parts.collections.map((one) => one.name).join(', ');
  const sections = parts.sections.map((one) => `“${one.title}”`).join(', ');
  return [names, sections && `${parts.sections.length === 1 ? 'section' : 'sections'} ${sections}`].filter(Boolean).join('; ');
}

function buildSummary(body: ReportBody, base: string): string {
  const { readiness } = body;
  const total = readiness.states.filter((one) => one.state !== 'notApplicable').reduce((sum, one) => sum + one.count, 0);
  const rows = readiness.states
    .filter((one) => one.state !== 'notApplicable' && one.count > 0)
    .map(
      (one) =>
        `<tr><td><i style="background:#${paperColours[one.state]}"></i>${stateWords[one.state].label}</td><td class="n">${figureLink(body, base, one.id, one.count)}</td><td class="n">${sharePercent(one.count, total)}</td><td>${stateWords[one.state].ofMany}</td></tr>`,
    );
  const results = readiness.results.map((one) => `${one.count} ${one.label.toLowerCase().replace('tests ', '')}`).join(', ');
  return `<p>${counted(total, 'requirement or need', 'requirements and needs')}; test cases: ${results}.</p><table><thead><tr><th>State</th><th class="n">Count</th><th class="n">Share</th><th>Meaning</th></tr></thead><tbody>${rows.join('')}</tbody></table>`;
}

function buildChart({ readiness }: ReportBody): string {
  const bars = readiness.collections
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

function buildCoverage(body: ReportBody, base: string): string {
  const { readiness } = body;
  const cell = (rule: string, state: string, count: number) => `<td class="n">${figureLink(body, base, `rule:${rule}:${state}`, count)}</td>`;
  const rows = readiness.rules.map(
    (rule) =>
      `<tr><td><b>${escapeHtml(rule.label)}</b><br><small>${escapeHtml(rule.sentence)}</small></td>${cell(rule.rule, 'met', rule.counts.met)}${cell(rule.rule, 'suspect', rule.counts.suspect)}${cell(rule.rule, 'waived', rule.counts.waived)}${cell(rule.rule, 'notMet', rule.counts.notMet)}<td class="n">${sharePercent(rule.counts.met + rule.counts.waived, rule.applicable)}</td></tr>`,
  );
  return `<table><thead><tr><th>Rule</th><th class="n">Met</th><th class="n">Met by suspect links only</th><th class="n">Waived</th><th class="n">Not met</th><th class="n">Met or waived</th></tr></thead><tbody>${rows.join('')}</tbody></table>`;
}

function buildChanges(body: ReportBody, link: (reference: string) => string): string {
  const moved = body.moved.map(
    (one) =>
      `<tr><td>${escapeHtml(one.label)}</td><td class="n">${one.before}</td><td class="n">${one.now}</td><td class="n">${one.now > one.before ? '+' : '−'}${Math.abs(one.now - one.before)}</td></tr>`,
  );
  const items = body.changed.map(
    (one) => `<tr><td>${one.reference === 'Links' ? 'Links' : link(one.reference)}</td><td>${escapeHtml(one.title)}</td><td>${escapeHtml(one.what)}</td></tr>`,
  );
  const figures = moved.length
    ? `<table><thead><tr><th>Figure</th><th class="n">Then</th><th class="n">Now</th><th class="n">Moved</th></tr></thead><tbody>${moved.join('')}</tbody></table>`
    : '<p>No figure moved.</p>';
  return `<p>Since report ${body.since!.number} of ${date(body.since!.at)} UTC.</p>${figures}${items.length ? `<table><thead><tr><th>Item</th><th>Title</th><th>What happened</th></tr></thead><tbody>${items.join('')}</tbody></table>` : '<p>No item changed.</p>'}`;
}

function buildGaps(body: ReportBody, link: (reference: string) => string): string {
  if (body.gaps.length === 0) return '<p>None: every rule is met or waived, and no test fails.</p>';
  return `<p>${counted(body.gaps.length, 'item')}.</p><table><thead><tr><th>Item</th><th>Title</th><th>Why</th></tr></thead><tbody>${body.gaps.map((gap) => `<tr><td>${link(gap.item.reference)}</td><td>${escapeHtml(gap.item.title)}</td><td>${escapeHtml(gap.why.join('; '))}</td></tr>`).join('')}</tbody></table>`;
}

function buildMatrix(body: ReportBody, link: (reference: string) => string): string {
  const rows = body.matrix.rows.map((row) =>
    row.heading
      ? `<tr class="heading"><td colspan="5">${escapeHtml(row.title)}</td></tr>`
      : `<tr><td>${link(row.reference)}</td><td>${escapeHtml(row.title)}</td><td><i style="background:#${paperColours[row.state]}"></i>${stateWords[row.state].label}</td><td>${row.design.map(link).join(', ') || '<em>none</em>'}</td><td>${row.tests.map(link).join(', ') || '<em>none</em>'}</td></tr>`,
  );
  return `<table><thead><tr><th>Requirement</th><th>Title</th><th>State</th><th>Satisfied or refined by</th><th>Verified by</th></tr></thead><tbody>${rows.join('')}</tbody></table>`;
}

const style = `
:root{color:#23241f;background:#f6f3ec;font:15px/1.5 'Literata','Georgia',serif}main{max-width:60rem;margin:0 auto;padding:2rem 1.5rem;background:#fffdf8}
.cover{border-bottom:6px solid #5b7f3a;padding:5rem 0 2rem;margin-bottom:2rem}.project{letter-spacing:.04em;color:#55594c}h1{font-size:2.4rem;line-height:1.15;margin:.2em 0}
h2{margin-top:2.2rem}nav ol{columns:2}table{border-collapse:collapse;width:100%;margin:.8rem 0;font-size:.87rem}th{text-align:left;border-bottom:2px solid #23241f;padding:.3rem .5rem}td{border-bottom:1px solid #ddd6c8;padding:.3rem .5rem;vertical-align:top}
.n{text-align:right;font-variant-numeric:tabular-nums}i{display:inline-block;width:.8em;height:.8em;margin-right:.45em;border-radius:2px}.legend span{margin-right:1.2em;white-space:nowrap}small{color:#55594c}tr.heading td{font-weight:bold;background:#efe9dc}
svg{width:100%;font:13px 'Commissioner',sans-serif}svg .in{fill:#fff;font-size:11px}a{color:#3d5c22}footer{margin-top:3rem;color:#55594c;font-size:.85rem}em{color:#8a3423}
@media print{main{max-width:none}section{break-inside:auto}tr{break-inside:avoid}}`;
