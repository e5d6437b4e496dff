import { functions, satisfied, useCases } from './model.js';
import { numberChapters } from './requirements.js';

/** Links between design and requirements as people keep them in a list: element, link kind, requirement. */
export function makeLinks(): string {
  const reference = new Map(
    numberChapters().flatMap((chapter) => chapter.sections.flatMap((section) => section.requirements.map((one) => [one.title, one.reference] as const))),
  );
  const rows = [
    ...useCases.flatMap(([name, titles]) => titles.map((title) => [name, 'refines', title])),
    ...functions.flatMap(([name, , titles]) => titles.map((title) => [name, 'satisfies', title])),
    ...satisfied.flatMap(([name, titles]) => titles.map((title) => [name, 'satisfies', title])),
  ];
  const lines = rows.map(([name, kind, title]) => {
    const found = reference.get(title!);
    if (!found) throw new Error(`No requirement is titled "${title}"`);
    return `"${name}",${kind},${found}`;
  });
  return ['Element,Link,Requirement', ...lines, ''].join('\n');
}
