import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { contentTypeOf, finish, defaultScheme, type Draft } from '@coomb/core';
import { below, pick, seeded } from '@coomb/core/testing';
import type { FileContent } from '../format/file-format.js';
import { readFileContent } from '../file-formats.js';
import { sanitiseRichText } from '../rich-text/sanitise.js';

/** Every text of items that files of a folder become by the recipes that are proposed for them, as they are stored; each once. */
export async function textsOfFiles(folder: string): Promise<string[]> {
  const texts = new Set<string>();
  for (const name of readdirSync(folder, { recursive: true, encoding: 'utf8' }).filter((one) => /\.(docx|xlsx|csv|reqif|md|html)$/.test(one))) {
    const { content } = await readFileContent(name, readFileSync(join(folder, name)));
    for (const item of itemsOf(content))
      for (const text of [item.html, ...Object.values(item.fields)]) if (typeof text === 'string' && /[<&]/.test(text)) texts.add(sanitiseRichText(text));
  }
  return [...texts];
}

function itemsOf(content: FileContent): readonly Pick<Draft, 'html' | 'fields'>[] {
  if (content.type === 'results') return [];
  const type = contentTypeOf(content.type);
  return finish(type.read(defaultScheme, type.propose(defaultScheme, content), content)).drafts;
}

type Random = () => number;

const WORDS = ['gate', 'Pool level', 'opens', 'within 3&nbsp;s', 'a &lt; b', 'Tür', '水位', '“so”', '10', 'x  y', 'n'];
const MARKS = ['strong', 'em', 'u', 's', 'sub', 'sup', 'code'];

/** A text with everything that a text may hold, nested as chance will have it, as it would be stored. */
export function randomText(seed: number): string {
  const random = seeded(seed);
  return sanitiseRichText(Array.from({ length: 1 + below(random, 5) }, () => block(random, 0)).join(''));
}

function inline(random: Random, depth: number): string {
  return Array.from({ length: 1 + below(random, 4) }, () => {
    const kind = below(random, depth > 3 ? 3 : 9);
    if (kind < 3) return `${pick(random, WORDS)} `;
    if (kind === 3) return '<br />';
    if (kind === 4) return `<img src="/api/projects/p/files/f${below(random, 9)}" alt="${pick(random, ['', 'Plan', 'a &amp; b'])}" />`;
    if (kind === 5) return `<a href="${pick(random, ['https://weir.example/a?b=1', 'mailto:desk@weir.example', 'coomb-item:i1'])}">${pick(random, WORDS)}</a>`;
    if (kind === 6)
      return `<math${pick(random, ['', ' display="block"'])}><mfrac><mi>a</mi><mrow><mi>b</mi><mo>+</mo><mn>${below(random, 9)}</mn></mrow></mfrac></math>`;
    const mark = pick(random, MARKS);
    return `<${mark}>${inline(random, depth + 1)}</${mark}>`;
  }).join('');
}

function block(random: Random, depth: number): string {
  const within = () => (below(random, 2) ? inline(random, 1) : Array.from({ length: 1 + below(random, 2) }, () => block(random, depth + 1)).join(''));
  const kind = depth > 2 ? 0 : below(random, 8);
  if (kind < 3) return `<p>${below(random, 12) ? inline(random, 0) : ''}</p>`;
  if (kind < 5) {
    const list = pick(random, ['ul', 'ol']);
    return `<${list}>${Array.from({ length: 1 + below(random, 3) }, () => `<li>${within()}</li>`).join('')}</${list}>`;
  }
  if (kind === 5) return `<blockquote>${block(random, depth + 1)}</blockquote>`;
  if (kind === 6)
    return below(random, 2)
      ? `<pre><code>if (level &gt; ${below(random, 9)})\n  open();\n\tend</code></pre>`
      : `<figure><img src="/api/projects/p/files/f1" alt="Plan" />${pick(random, ['', '<figcaption>The <em>gate</em> from below</figcaption>'])}</figure>`;
  const columns = 1 + below(random, 3);
  const row = (name: string) => `<tr>${Array.from({ length: columns }, () => `<${name}>${within()}</${name}>`).join('')}</tr>`;
  const head = below(random, 2) ? `<thead>${row('th')}</thead>` : '';
  return `<table>${head}<tbody>${Array.from({ length: 1 + below(random, 3) }, () => row(pick(random, ['td', 'td', 'th']))).join('')}</tbody></table>`;
}
