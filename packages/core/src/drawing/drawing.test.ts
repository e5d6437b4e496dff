import { describe, expect, it } from 'vitest';
import type { ModelDocument, ModelDrawing, ModelElement, ModelRelation } from '../source/model.js';
import { below, seeded } from '../testing/random.js';
import { buildScene, findNeighbour, findRouteAt, findShapeAt, findShown } from './drawing-scene.js';
import { buildDrawn, type DrawnRoute, type DrawnShape } from './drawn.js';
import { figureOf, figures, keywordOf, lookOf } from './figure.js';
import { detailAt } from './brush.js';
import { paintShape } from './paint-shape.js';
import { paintRoute } from './paint-route.js';
import { fitLine, type Ink, type Paper, type Pen, wrapText } from './pen.js';
import { findHolding, writeDrawing } from './write-drawing.js';

const paper: Paper = { ground: '#ffffff', ink: '#23241f', line: '#55584c', faint: '#d9d1bd', fill: '#ffffff', inside: '#f6f3ec', note: '#f7ecc8' };
const measure = (text: string, { size }: { size: number }) => text.length * size * 0.5;

const element = (id: string, type: string, more: Partial<ModelElement> = {}): ModelElement => ({
  ...{ id, type, stereotypes: [], name: id, parent: null, typedBy: null, text: '', reference: null, values: {}, line: 1 },
  ...more,
});
const relation = (id: string, type: string, from: string, to: string, more: Partial<ModelRelation> = {}): ModelRelation => ({
  ...{ id, type, stereotypes: [], from: [from], to: [to], name: '', values: {}, line: 1 },
  ...more,
});
const modelOf = (elements: ModelElement[], relations: ModelRelation[] = []): ModelDocument => ({
  ...{ notation: 'uml', exporter: '', elements, relations, drawings: [], unknown: new Map(), missing: [] },
});
const shape = (more: Partial<DrawnShape> = {}): DrawnShape => ({
  ...{ id: 's', element: 'e', item: null, inside: -1, figure: 'box', name: 'Gate Drive', x: 10, y: 20, width: 160, height: 90 },
  ...more,
});
const route = (points: [number, number][], more: Partial<DrawnRoute> = {}): DrawnRoute => ({
  ...{ id: 'r', element: 'r', from: -1, to: -1, points: points.map(([x, y]) => ({ x, y })), dashed: false, start: 'none', end: 'arrow', label: '' },
  ...more,
});

/** Notes what is painted, and where. */
class Recorder implements Pen {
  readonly texts: { text: string; colour: string }[] = [];
  readonly marks: { kind: string; ink: Ink }[] = [];
  private readonly points: [number, number][] = [];
  readonly measure = measure;
  rect(x: number, y: number, width: number, height: number, _: number, ink: Ink) {
    this.points.push([x, y], [x + width, y + height]);
    this.marks.push({ kind: 'rect', ink });
  }
  ellipse(x: number, y: number, rx: number, ry: number, ink: Ink) {
    this.points.push([x - rx, y - ry], [x + rx, y + ry]);
    this.marks.push({ kind: 'ellipse', ink });
  }
  line(points: readonly number[], closed: boolean, ink: Ink) {
    for (let at = 0; at < points.length; at += 2) this.points.push([points[at]!, points[at + 1]!]);
    this.marks.push({ kind: closed ? 'area' : 'line', ink });
  }
  text(text: string, _: number, __: number, ___: unknown, ____: unknown, colour: string) {
    this.texts.push({ text, colour });
  }
  get bounds() {
    const [xs, ys] = [this.points.map(([x]) => x), this.points.map(([, y]) => y)];
    return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
  }
}

describe('figures', () => {
  it.each([
    ['Class', {}, 'box'],
    ['UseCase', {}, 'ellipse'],
    ['Actor', {}, 'actor'],
    ['Package', {}, 'package'],
    ['Comment', {}, 'note'],
    ['State', {}, 'rounded'],
    ['DecisionNode', {}, 'diamond'],
    ['ForkNode', {}, 'bar'],
    ['OpaqueAction', {}, 'rounded'],
    ['SendSignalAction', {}, 'send'],
    ['AcceptEventAction', {}, 'receive'],
    ['Pseudostate', { values: { kind: 'initial' } }, 'initial'],
    ['Pseudostate', { values: { kind: 'deepHistory' } }, 'deepHistory'],
    ['Property', { role: 'part' }, 'box'],
    ['Port', {}, 'port'],
    ['Lifeline', {}, 'lifeline'],
    ['UserTask', {}, 'rounded'],
    ['ParallelGateway', {}, 'gateway'],
    ['InputData', {}, 'input'],
    ['Riddle', {}, 'box'],
  ] as const)('are those that the notation gives: %s', (type, more, figure) =>
    expect(figureOf(element('x', type, more as Partial<ModelElement>))).toBe(figure),
  );

  it('carry stereotypes with a small letter, and keywords of UML', () => {
    expect(keywordOf(element('x', 'Class', { stereotypes: ['Block', 'Risky'] }))).toBe('«block, risky»');
    expect(keywordOf(element('x', 'Interface'))).toBe('«interface»');
    expect(keywordOf(element('x', 'Class'))).toBe('');
  });

  it.each(figures.map((figure) => [figure]))('are painted within their box at every size: %s', (figure) => {
    for (const detail of [0, 1, 2, 3] as const) {
      const pen = new Recorder();
      const parts = [{ title: 'values', lines: ['travel: m = 3.4', 'load: kN'] }];
      paintShape(pen, paper, shape({ figure, parts, keyword: '«block»', sign: 'message' }), detail, false);
      expect(pen.marks.length).toBeGreaterThan(0);
      const [left, top, right, bottom] = pen.bounds;
      expect([left! >= 9, top! >= 19, right! <= 171, bottom! <= 111]).toEqual([true, true, true, true]);
      if (detail < 2) expect(pen.texts).toEqual([]);
    }
  });

  it('keep their words readable on any fill', () => {
    for (const fill of ['#000000', '#7a2b10', '#808080', '#c0d0e0', '#ffffff']) {
      const pen = new Recorder();
      paintShape(pen, paper, shape(), 3, false, { fill });
      const light = (colour: string) => {
        const [r, g, b] = [1, 3, 5].map((at) => {
          const part = Number.parseInt(colour.slice(at, at + 2), 16) / 255;
          return part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4;
        }) as [number, number, number];
        return 0.2126 * r + 0.7152 * g + 0.0722 * b;
      };
      for (const { colour } of pen.texts) {
        const [a, b] = [light(colour), light(fill)];
        expect((Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05)).toBeGreaterThan(3.9);
      }
    }
  });

  it('show as much as fits, and say how much more there is', () => {
    const pen = new Recorder();
    const lines = Array.from({ length: 20 }, (_, at) => `value ${at}`);
    paintShape(pen, paper, shape({ parts: [{ title: 'values', lines }] }), 3, false);
    const shown = pen.texts.map(({ text }) => text);
    expect(shown).toContain('value 0');
    const more = shown.find((text) => /more$/.test(text))!;
    expect(Number(/\d+/.exec(more)![0]) + shown.filter((text) => /^value /.test(text)).length).toBe(20);
  });

  it('are drawn with less detail the smaller they are', () => expect([0.1, 0.2, 0.5, 1].map(detailAt)).toEqual([0, 1, 2, 3]));
});

describe('texts', () => {
  const font = { size: 10 };
  it('are cut with an ellipsis', () => {
    expect(fitLine({ measure }, 'Gate', font, 20)).toBe('Gate');
    expect(fitLine({ measure }, 'Gate drive', font, 30)).toBe('Gate…');
    expect(fitLine({ measure }, 'Gate', font, 3)).toBe('');
  });
  it('go on in the next line, and the last line tells that there is more', () => {
    expect(wrapText({ measure }, 'one two three', font, 40, 3)).toEqual(['one two', 'three']);
    expect(wrapText({ measure }, 'one two three four five', font, 40, 2)).toEqual(['one two', 'three…']);
    expect(wrapText({ measure }, 'a\nb', font, 40, 3)).toEqual(['a', 'b']);
  });
});

describe('relations', () => {
  it.each([
    [relation('r', 'Generalization', 'a', 'b'), { dashed: false, to: 'triangle' }],
    [relation('r', 'Abstraction', 'a', 'b', { stereotypes: ['Satisfy'] }), { dashed: true, to: 'arrow', label: '«satisfy»' }],
    [relation('r', 'InterfaceRealization', 'a', 'b'), { dashed: true, to: 'triangle' }],
    [relation('r', 'Association', 'a', 'b', { role: 'composite' }), { dashed: false, from: 'filledDiamond', to: 'none' }],
    [relation('r', 'Transition', 'a', 'b', { values: { trigger: 'stop', guard: 'near', effect: 'hold' } }), { label: 'stop [near] / hold', to: 'arrow' }],
    [relation('r', 'Message', 'a', 'b', { values: { sort: 'reply' } }), { dashed: true, to: 'arrow' }],
    [relation('r', 'Message', 'a', 'b', { values: { sort: 'synchCall' } }), { dashed: false, to: 'filled' }],
    [relation('r', 'SequenceFlow', 'a', 'b', { values: { default: 'true' } }), { from: 'slash', to: 'filled' }],
    [relation('r', 'AuthorityRequirement', 'a', 'b'), { dashed: true, from: 'filledCircle' }],
    [relation('r', 'Extend', 'a', 'b'), { dashed: true, label: '«extend»' }],
  ])('look as the notation has them: %s', (one, look) => expect(lookOf(one)).toMatchObject(look));

  it('carry their marks at the right end, whichever way the file leads the line', () => {
    const model = modelOf(
      [element('whole', 'Class'), element('part', 'Class')],
      [relation('as', 'Association', 'whole', 'part', { role: 'composite', values: { 'from end': '1', 'to end': 'drive 0..*' } })],
    );
    const drawing = (from: number, to: number): ModelDrawing => ({
      ...{ id: 'd', name: 'D', sort: 'class', owner: null, line: 1 },
      shapes: ['whole', 'part'].map((id, at) => ({ id: `s${id}`, element: id, inside: -1, x: at * 200, y: 0, width: 100, height: 50 })),
      routes: [{ id: 'r', element: 'as', from, to, points: [] }],
    });
    expect(buildDrawn(model, drawing(0, 1), () => null).routes[0]).toMatchObject({
      start: 'filledDiamond',
      end: 'none',
      startText: '1',
      endText: 'drive 0..*',
    });
    expect(buildDrawn(model, drawing(1, 0), () => null).routes[0]).toMatchObject({
      start: 'none',
      end: 'filledDiamond',
      startText: 'drive 0..*',
      endText: '1',
    });
  });

  it('are painted with their marks and a label that has ground behind it', () => {
    const pen = new Recorder();
    paintRoute(
      pen,
      paper,
      route(
        [
          [0, 0],
          [100, 0],
        ],
        { label: 'feeds', start: 'diamond', end: 'filled' },
      ),
      3,
      '#abcdef',
    );
    expect(pen.marks.map(({ kind }) => kind)).toEqual(['line', 'area', 'area', 'rect']);
    expect(pen.marks.at(-1)!.ink.fill).toBe('#abcdef');
    expect(pen.texts.map(({ text }) => text)).toEqual(['feeds']);
  });
});

describe('what a shape says', () => {
  const model = modelOf([
    element('drive', 'Class', { stereotypes: ['Block'], name: 'Gate Drive' }),
    element('travel', 'Property', { role: 'value', parent: 'drive', typeName: 'm', values: { default: '3.4' } }),
    element('motor', 'Property', { role: 'part', parent: 'drive', typedBy: 'm', values: { multiplicity: '2' } }),
    element('stop', 'Operation', { parent: 'drive', values: { signature: 'stop()' } }),
    element('m', 'Class', { name: 'Motor' }),
    element('req', 'Class', { stereotypes: ['Requirement'], name: 'Travel', text: 'It shall move.', reference: 'R-1' }),
    element('note', 'Comment', { name: '', text: 'Mind the ice.' }),
  ]);
  const drawn = (elements: string[]) =>
    buildDrawn(
      model,
      {
        ...{ id: 'd', name: 'D', sort: 'class', owner: null, line: 1, routes: [] },
        shapes: elements.map((one) => ({ id: `s${one}`, element: one, inside: -1, x: 0, y: 0, width: 10, height: 10 })),
      },
      (id) => (id === 'drive' ? 'item' : null),
    ).shapes;

  it('has what it owns in its compartments', () =>
    expect(drawn(['drive'])[0]).toMatchObject({
      ...{ item: 'item', figure: 'box', name: 'Gate Drive', keyword: '«block»' },
      parts: [
        { title: 'values', lines: ['travel: m = 3.4'] },
        { title: 'parts', lines: ['motor: Motor [2]'] },
        { title: 'operations', lines: ['stop()'] },
      ],
    }));

  it('leaves out of the compartments what is drawn by itself', () => {
    const [drive, motor] = drawn(['drive', 'motor']);
    expect(drive!.parts!.map(({ title }) => title)).toEqual(['values', 'operations']);
    expect(motor!.name).toBe('motor: Motor [2]');
  });

  it('has id and text of a requirement, and the words of a note', () => {
    expect(drawn(['req'])[0]!.parts).toEqual([{ title: '', lines: ['id = R-1', 'text = It shall move.'] }]);
    expect(drawn(['note'])[0]).toMatchObject({ figure: 'note', name: 'Mind the ice.' });
  });
});

describe('a scene', () => {
  const random = seeded(11);
  const shapes = Array.from({ length: 300 }, (_, at) =>
    shape({
      id: `s${at}`,
      name: `Shape ${at}`,
      x: below(random, 2000),
      y: below(random, 2000),
      width: 4 + below(random, 150),
      height: 4 + below(random, 90),
      inside: at > 200 ? below(random, 200) : -1,
    }),
  );
  const routes = Array.from({ length: 200 }, () =>
    route([
      [below(random, 2000), below(random, 2000)],
      [below(random, 2000), below(random, 2000)],
    ]),
  );
  const scene = buildScene({ shapes, routes });

  it('finds what lies under the hand as looking at every shape does: the deepest, then the last', () => {
    for (let round = 0; round < 500; round++) {
      const [x, y] = [below(random, 2000), below(random, 2000)];
      const under = shapes.flatMap((one, at) => (x >= one.x && x <= one.x + one.width && y >= one.y && y <= one.y + one.height ? [at] : []));
      const best = under.toSorted((a, b) => (shapes[b]!.inside >= 0 ? 1 : 0) - (shapes[a]!.inside >= 0 ? 1 : 0) || b - a)[0] ?? -1;
      expect(findShapeAt(scene, x, y)).toBe(best);
    }
  });

  it('finds small figures with a little beside them, and lines nearby', () => {
    const small = buildScene({
      shapes: [shape({ width: 10, height: 10 })],
      routes: [
        route([
          [0, 100],
          [100, 100],
        ]),
      ],
    });
    expect(findShapeAt(small, 23, 25, 4)).toBe(0);
    expect(findShapeAt(small, 40, 25, 4)).toBe(-1);
    expect(findRouteAt(small, 50, 103, 5)).toBe(0);
    expect(findRouteAt(small, 50, 110, 5)).toBe(-1);
  });

  it('shows exactly what a part of it shows', () => {
    const part = { x: 300, y: 400, width: 500, height: 350 };
    const expected = shapes.flatMap((one, at) => (one.x <= 800 && one.x + one.width >= 300 && one.y <= 750 && one.y + one.height >= 400 ? [at] : []));
    expect(findShown(scene, part).shapes).toEqual(expected);
  });

  it('goes by arrow keys to what lies in that direction, straight ahead first', () => {
    const row = buildScene({ shapes: [0, 200, 400].flatMap((x) => [shape({ x, y: 0 }), shape({ x, y: 300 })]), routes: [] });
    expect(findNeighbour(row, 0, 'right')).toBe(2);
    expect(findNeighbour(row, 2, 'down')).toBe(3);
    expect(findNeighbour(row, 3, 'left')).toBe(1);
    expect(findNeighbour(row, 1, 'left')).toBe(-1);
  });

  it('knows what holds others, ports aside', () =>
    expect([
      ...findHolding([
        { inside: -1, figure: 'box' },
        { inside: 0, figure: 'port' },
        { inside: -1, figure: 'box' },
        { inside: 2, figure: 'box' },
      ]),
    ]).toEqual([2]));

  it('is written as a file whose words are words', () => {
    const svg = writeDrawing(
      buildScene({
        shapes: [shape({ name: 'Gate & <drive>' })],
        routes: [
          route(
            [
              [0, 0],
              [50, 50],
            ],
            { label: '«satisfy»' },
          ),
        ],
      }),
      'A "drawing"',
      paper,
      measure,
    );
    expect(svg).toMatch(/^<svg xmlns="http:\/\/www.w3.org\/2000\/svg" viewBox="-24 -24 218 158"/);
    expect(svg).toContain('>Gate &amp; &lt;drive&gt;</text>');
    expect(svg).toContain('<title>A &quot;drawing&quot;</title>');
    expect(svg.match(/<g>/g)!.length).toBe(svg.match(/<\/g>/g)!.length);
  });
});
