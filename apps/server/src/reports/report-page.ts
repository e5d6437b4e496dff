import type { ReportBody } from '@coomb/contract';
import { escapeHtml } from '@coomb/core';
import { readBlocks } from './blocks/index.js';
import { legendOf, linksTo } from './page-links.js';
import { fontFaces } from './report-fonts.js';
import { describeParts, sayDate } from './report-words.js';

/**
 * The report as one web page that needs nothing else: no script, no outside file. `base` is the whole address of the live project, so that
 * links lead there from a page that was saved or sent; what they are called says all without following them.
 */
export function buildReportPage(number: number, body: ReportBody, base: string): string {
  const sheet = { body, ...linksTo(body, base) };
  const sections = readBlocks(body)
    .filter(({ block, data }) => block.isEmpty?.(data) !== true)
    .map(({ block, data }): [string, string] => [block.title, block.page(data, sheet)]);
  return `<!doctype html>
<html lang="en-GB"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<title>${escapeHtml(body.title)} · ${escapeHtml(body.project)}</title>
<style>${fontFaces()}${style}</style></head><body><main>
<header class="cover"><p class="project">${escapeHtml(body.project)}</p><h1>${escapeHtml(body.title)}</h1>
<p>Report ${number} · ${sayDate(body.at)} UTC · ${escapeHtml(body.person)} · as of change ${body.seq}</p>${body.parts ? `<p>About ${escapeHtml(describeParts(body.parts))}.</p>` : ''}${body.note ? `<p class="note">${escapeHtml(body.note).replace(/\n/g, '<br>')}</p>` : ''}${legendOf(body)}</header>
<nav><h2>Contents</h2><ol>${sections.map(([title], index) => `<li><a href="#s${index}">${title}</a></li>`).join('')}</ol></nav>
${sections.map(([title, html], index) => `<section id="s${index}"><h2>${index + 1} ${title}</h2>${html}</section>`).join('\n')}
<footer>Made by Coomb from live data. Figures and references lead to the project at ${escapeHtml(base)}, for whoever can reach it.</footer>
</main></body></html>`;
}

const style = `
:root{color:#23241f;background:#f6f3ec;font:15px/1.5 'Literata','Georgia',serif}main{max-width:60rem;margin:0 auto;padding:2rem 1.5rem;background:#fffdf8}
.cover{border-bottom:6px solid #5b7f3a;padding:5rem 0 2rem;margin-bottom:2rem}.project{letter-spacing:.04em;color:#55594c}h1{font-size:2.4rem;line-height:1.15;margin:.2em 0}
h2{margin-top:2.2rem}nav ol{columns:2}table{border-collapse:collapse;width:100%;margin:.8rem 0;font-size:.87rem}th{text-align:left;border-bottom:2px solid #23241f;padding:.3rem .5rem}td{border-bottom:1px solid #ddd6c8;padding:.3rem .5rem;vertical-align:top}
.n{text-align:right;font-variant-numeric:tabular-nums}i{display:inline-block;width:.8em;height:.8em;margin-right:.45em;border-radius:2px}.legend span{margin-right:1.2em;white-space:nowrap}small{color:#55594c}td.state{white-space:nowrap}tr.heading td{font-weight:bold;background:#efe9dc}
.key{padding:0 .3em;border-radius:2px;text-decoration:none}svg.sign{width:.65em;height:.65em;margin-right:.25em}svg:not(.sign){width:100%;font:13px 'Commissioner',sans-serif}svg .in{fill:#fff;font-size:11px}a{color:#3d5c22}footer{margin-top:3rem;color:#55594c;font-size:.85rem}em{color:#8a3423}
@media print{main{max-width:none}section{break-inside:auto}tr{break-inside:avoid}}`;
