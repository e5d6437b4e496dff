import { type NumberedChapter, type NumberedRequirement, numberChapters } from './requirements.js';

const rewordings: [reference: string, from: string, to: string][] = [
  ['SYS-001', 'within 0.05 m of the set level while the river flow is below 40 m³/s', 'within 0.05 m of the set level while the river flow is below 35 m³/s'],
  ['SYS-004', '0.10 m per hour', '0.08 m per hour'],
  ['SYS-011', 'within 12 minutes', 'within 10 minutes'],
];

/** Issue 4 of the specification: reworded, added, dropped and moved requirements, and a priority that changed. */
export function reviseChapters(): NumberedChapter[] {
  const chapters = numberChapters();
  const all = () => chapters.flatMap((chapter) => chapter.sections.flatMap((section) => section.requirements));
  for (const [reference, from, to] of rewordings) {
    const found = all().find((one) => one.reference === reference);
    if (!found?.text.includes(from)) throw new Error(`${reference} does not say "${from}"`);
    found.text = found.text.replace(from, to);
  }
  const take = (reference: string): NumberedRequirement => {
    for (const section of chapters.flatMap((chapter) => chapter.sections)) {
      const at = section.requirements.findIndex((one) => one.reference === reference);
      if (at >= 0) return section.requirements.splice(at, 1)[0]!;
    }
    throw new Error(`There is no ${reference}`);
  };
  take('SYS-007');
  take('SYS-060');
  all().find((one) => one.reference === 'SYS-021')!.priority = 'High';
  const normal = chapters[0]!.sections[0]!;
  normal.requirements.splice(2, 0, {
    reference: 'SYS-124',
    title: 'Set level by season',
    text: 'The weir control shall show the set level that applies today together with the day on which it changes next.',
    priority: 'Medium',
    method: 'Demonstration',
    need: 'NEED-006',
  });
  const flood = chapters[0]!.sections[1]!;
  flood.requirements.unshift(take('SYS-008'));
  return chapters;
}
