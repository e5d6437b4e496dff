/** A shape of a drawing: what it shows, and where. */
export interface Placed {
  element: string;
  x: number;
  y: number;
  width: number;
  height: number;
  /** Class of UML diagram interchange; a classifier where nothing is said. */
  type?: string;
  /** It is drawn as an ellipse: lines end on that. */
  round?: boolean;
  inside?: Placed[];
}

/** A line of a drawing: what it shows, from shape to shape, over the points between. */
export interface Led {
  element: string;
  from: string;
  to: string;
  by?: [x: number, y: number][];
}

const escapeXml = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/"/g, '&quot;');

/** A drawing in UML diagram interchange; ids begin with the drawing's own. */
export function makeDiagram(type: string, id: string, name: string, shapes: readonly Placed[], edges: readonly Led[] = []): string[] {
  const boxes = new Map<string, Placed>();
  const note = (one: Placed) => {
    boxes.set(one.element, one);
    one.inside?.forEach(note);
  };
  shapes.forEach(note);
  const shape = (one: Placed): string =>
    `<ownedElement xmi:type="umldi:${one.type ?? 'UMLClassifierShape'}" xmi:id="${id}_s_${one.element}" modelElement="${one.element}"><bounds x="${one.x}" y="${one.y}" width="${one.width}" height="${one.height}"/>${(one.inside ?? []).map(shape).join('')}</ownedElement>`;
  const edge = ({ element, from, to, by = [] }: Led, index: number): string => {
    const [a, b] = [boxes.get(from)!, boxes.get(to)!];
    const first = by[0] ?? centre(b);
    const last = by.at(-1) ?? centre(a);
    // A line that is led exactly begins and ends on the boxes' borders or inside them by itself.
    const isOn = (box: Placed, [x, y]: readonly [number, number]) => x >= box.x && x <= box.x + box.width && y >= box.y && y <= box.y + box.height;
    const points = [...(by[0] && isOn(a, by[0]) ? [] : [border(a, first)]), ...by, ...(by.length > 0 && isOn(b, by.at(-1)!) ? [] : [border(b, last)])];
    return `<ownedElement xmi:type="umldi:UMLEdge" xmi:id="${id}_e_${index}" modelElement="${element}" source="${id}_s_${from}" target="${id}_s_${to}">${points.map(([x, y]) => `<waypoint x="${x}" y="${y}"/>`).join('')}</ownedElement>`;
  };
  return [
    `  <umldi:${type} xmi:id="${id}" name="${escapeXml(name)}">`,
    ...[...shapes.map(shape), ...edges.map(edge)].map((line) => `    ${line}`),
    `  </umldi:${type}>`,
  ];
}

const centre = ({ x, y, width, height }: Placed): [number, number] => [x + width / 2, y + height / 2];

/** Where the line from the middle of a box towards a point leaves it. */
function border(box: Placed, [x, y]: readonly [number, number]): [number, number] {
  const [cx, cy] = centre(box);
  const [dx, dy] = [x - cx, y - cy];
  if (dx === 0 && dy === 0) return [cx, cy];
  if (box.round) {
    const length = Math.hypot(dx / (box.width / 2), dy / (box.height / 2));
    return [Math.round(cx + dx / length), Math.round(cy + dy / length)];
  }
  const scale = Math.min(box.width / 2 / Math.abs(dx || 1e-9), box.height / 2 / Math.abs(dy || 1e-9));
  return [Math.round(cx + dx * scale), Math.round(cy + dy * scale)];
}
