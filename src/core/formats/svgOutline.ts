import { XMLParser, XMLValidator } from 'fast-xml-parser';
import svgpath from 'svgpath';
import type { PointMm } from '../bed/outline';
import { doubledArea, MOST_OUTLINE_POINTS, type Outline } from '../model/designSchema';
import { ScanError } from './stl';

/** One closed shape of a drawing, in the drawing's own units, y downwards. */
interface Shape {
  name: string;
  points: [number, number][];
  closed: boolean;
}

/** What a drawing holds: its closed shapes, largest first, and how large it says it is. */
export interface SvgDrawing {
  shapes: { name: string; widthUnits: number; lengthUnits: number; points: [number, number][] }[];
  /** mm for each unit, when the drawing gives its size in mm, cm, in or pt; null when it must be asked. */
  mmPerUnit: number | null;
}

const UNIT_MM: Record<string, number> = { mm: 1, cm: 10, in: 25.4, pt: 25.4 / 72, pc: 25.4 / 6 };
/** Curves are broken into so many straight steps at most; what is too many for an outline is thinned out after. */
const CURVE_STEPS = 24;
/** Ends of a path that lie so near each other, as a share of its size, were meant to meet. */
const CLOSE_ENOUGH = 1e-3;

type Element = Record<string, unknown> & { ':@'?: Record<string, string> };

/**
 * Reads the closed shapes of an SVG: paths, polygons, rectangles, circles and ellipses, with their transforms. Throws a
 * `ScanError` when there are none, and says which paths are open.
 */
export function readSvg(text: string): SvgDrawing {
  const valid = XMLValidator.validate(text);
  if (valid !== true) throw new ScanError(`This is no SVG: ${valid.err.msg} (line ${valid.err.line}).`);
  const tree = new XMLParser({ ignoreAttributes: false, attributeNamePrefix: '', preserveOrder: true }).parse(
    text,
  ) as Element[];
  const root = tree.find((element) => 'svg' in element);
  if (!root) throw new ScanError('This is no SVG: it has no drawing in it.');
  const shapes = shapesOf(root['svg'] as Element[], '');
  const closed = shapes.filter((shape) => shape.closed && Math.abs(area(shape.points)) > 0);
  const open = shapes.filter((shape) => !shape.closed).map(({ name }) => name);
  if (closed.length === 0) {
    throw new ScanError(
      open.length > 0
        ? `No outline is closed. Open: ${open.slice(0, 5).join(', ')}${open.length > 5 ? ` and ${open.length - 5} more` : ''}. Join their ends in your drawing.`
        : 'The drawing holds no paths or shapes.',
    );
  }
  const found = closed.map(({ name, points }) => {
    const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
    return { name, points, widthUnits: span(xs), lengthUnits: span(ys), size: Math.abs(area(points)) };
  });
  found.sort((a, b) => b.size - a.size);
  return { shapes: found.map(({ size: _, ...shape }) => shape), mmPerUnit: mmPerUnit(root[':@'] ?? {}) };
}

const span = (values: readonly number[]): number =>
  values.reduce((a, b) => Math.max(a, b), -Infinity) - values.reduce((a, b) => Math.min(a, b), Infinity);
const area = (points: readonly [number, number][]): number =>
  doubledArea(points.map(([xMm, yMm]) => ({ xMm, yMm }))) / 2;

function mmPerUnit({ width = '', viewBox = '' }: Record<string, string>): number | null {
  const [, size, unit] = /^\s*([\d.eE+-]+)\s*(mm|cm|in|pt|pc)\s*$/.exec(width) ?? [];
  if (!size || !unit) return null;
  const box = viewBox
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  const mm = Number(size) * UNIT_MM[unit]!;
  return box.length === 4 && box[2]! > 0 ? mm / box[2]! : UNIT_MM[unit]!;
}

function shapesOf(elements: readonly Element[], transform: string): Shape[] {
  return elements.flatMap((element, index): Shape[] => {
    const [tag] = Object.keys(element).filter((key) => key !== ':@');
    if (!tag || tag === 'defs' || tag === 'clipPath' || tag === 'symbol' || tag === '#text') return [];
    const attributes = element[':@'] ?? {};
    const here = [transform, attributes['transform']].filter(Boolean).join(' ');
    const path = pathOf(tag, attributes);
    const children = Array.isArray(element[tag]) ? (element[tag] as Element[]) : [];
    return [
      ...(path ? pieces(path, here, attributes['id'] ?? `${tag} ${index + 1}`) : []),
      ...shapesOf(children, here),
    ];
  });
}

/** A shape as the path that draws it. */
function pathOf(tag: string, attributes: Record<string, string>): string | null {
  const number = (name: string): number => Number(attributes[name] ?? 0) || 0;
  if (tag === 'path') return attributes['d'] ?? null;
  if (tag === 'polygon' || tag === 'polyline')
    return attributes['points'] ? `M${attributes['points']}${tag === 'polygon' ? 'Z' : ''}` : null;
  if (tag === 'rect')
    return `M${number('x')} ${number('y')}h${number('width')}v${number('height')}h${-number('width')}Z`;
  if (tag !== 'circle' && tag !== 'ellipse') return null;
  const [rx, ry] = tag === 'circle' ? [number('r'), number('r')] : [number('rx'), number('ry')];
  return `M${number('cx') - rx} ${number('cy')}a${rx} ${ry} 0 1 0 ${2 * rx} 0a${rx} ${ry} 0 1 0 ${-2 * rx} 0Z`;
}

/** No outline of a piece needs more: such a path is a tracing, to be simplified first. */
const MOST_SEGMENTS = 20_000;
const MOST_PATH_CHARACTERS = 2_000_000;
const tooLong = (name: string): ScanError =>
  new ScanError(`The path “${name}” has more than ${MOST_SEGMENTS} segments. Simplify it in your drawing.`);

/** The pieces of a path, each its own shape, curves broken into straight steps. */
function pieces(d: string, transform: string, name: string): Shape[] {
  const shapes: Shape[] = [];
  let points: [number, number][] = [];
  const end = (closed: boolean): void => {
    if (points.length > 2)
      shapes.push({
        name: shapes.length > 0 ? `${name}, part ${shapes.length + 1}` : name,
        points,
        closed: closed || endsMeet(points),
      });
    points = [];
  };
  if (d.length > MOST_PATH_CHARACTERS) throw tooLong(name);
  const read = svgpath(d);
  let segments = 0;
  read.iterate(() => {
    if (++segments > MOST_SEGMENTS) throw tooLong(name);
  });
  const parsed = read.transform(transform).abs().unshort().unarc();
  if ((parsed as unknown as { err?: string }).err)
    throw new ScanError(`The path “${name}” cannot be read: ${(parsed as unknown as { err: string }).err}.`);
  parsed.iterate((segment, _, x, y) => {
    const values = segment.slice(1) as number[];
    const [command] = segment;
    if (command === 'M') end(false);
    if (command === 'M' || command === 'L') points.push([values[0]!, values[1]!]);
    else if (command === 'H') points.push([values[0]!, y]);
    else if (command === 'V') points.push([x, values[0]!]);
    else if (command === 'C' || command === 'Q') points.push(...curve([x, y], values));
    else {
      const start = points[0];
      end(true);
      if (start) points = [start];
    }
  });
  end(false);
  return shapes;
}

function endsMeet(points: readonly [number, number][]): boolean {
  const [first, last] = [points[0]!, points.at(-1)!];
  const size = Math.max(span(points.map(([x]) => x)), span(points.map(([, y]) => y)));
  return Math.hypot(first[0] - last[0], first[1] - last[1]) <= size * CLOSE_ENOUGH;
}

/** Points along a Bézier curve after its start. */
function curve([x0, y0]: readonly [number, number], values: readonly number[]): [number, number][] {
  const stops = [
    [x0, y0],
    ...Array.from({ length: values.length / 2 }, (_, i) => [values[2 * i]!, values[2 * i + 1]!]),
  ];
  return Array.from({ length: CURVE_STEPS }, (_, i) => {
    const t = (i + 1) / CURVE_STEPS;
    let level = stops;
    while (level.length > 1)
      level = level
        .slice(1)
        .map(([x, y], k) => [level[k]![0]! + t * (x! - level[k]![0]!), level[k]![1]! + t * (y! - level[k]![1]!)]);
    return [level[0]![0]!, level[0]![1]!];
  });
}

/** Points nearer to the line between their neighbours than this say nothing, mm. */
const FINEST_MM = 0.03;

/** A shape of a drawing as the outline of a piece, its lowest x and y at 0, north at the drawing's top. */
export function svgOutline(shape: SvgDrawing['shapes'][number], unitMm: number): Extract<Outline, { kind: 'free' }> {
  const all = shape.points.map(([x, y]): PointMm => ({ xMm: x * unitMm, yMm: -y * unitMm }));
  const [west, south] = [Math.min(...all.map(({ xMm }) => xMm)), Math.min(...all.map(({ yMm }) => yMm))];
  const [first, last] = [all[0]!, all.at(-1)!];
  const ring = Math.hypot(first.xMm - last.xMm, first.yMm - last.yMm) < FINEST_MM ? all.slice(0, -1) : all;
  let points = ring;
  for (let tolerance = FINEST_MM; points.length > MOST_OUTLINE_POINTS || tolerance === FINEST_MM; tolerance *= 1.6)
    points = thinned(ring, tolerance);
  const outline = points.map(({ xMm, yMm }) => ({ xMm: round(xMm - west), yMm: round(yMm - south) }));
  if (Math.max(...outline.flatMap(({ xMm, yMm }) => [xMm, yMm])) > 3000)
    throw new ScanError('At this size the outline is more than 3 m long. State its width.');
  return { kind: 'free', points: doubledArea(outline) > 0 ? outline : outline.reverse() };
}

const round = (mm: number): number => Math.max(0, Math.round(mm * 1000) / 1000);

/** A closed line without the points that lie within a tolerance of it. Ramer, Douglas and Peucker's. */
function thinned(points: readonly PointMm[], tolerance: number): PointMm[] {
  const keep = new Uint8Array(points.length);
  // A closed line is split at the point furthest from its first.
  const far = points.reduce(
    (best, point, i) => (apart(point, points[0]!) > apart(points[best]!, points[0]!) ? i : best),
    0,
  );
  keep[0] = keep[far] = 1;
  const stack: [number, number][] = [
    [0, far],
    [far, points.length],
  ];
  for (let next = stack.pop(); next; next = stack.pop()) {
    const [from, to] = next;
    const [a, b] = [points[from]!, points[to % points.length]!];
    let [worst, at] = [tolerance, -1];
    for (let i = from + 1; i < to; i++) {
      const away = fromLine(points[i]!, a, b);
      if (away > worst) [worst, at] = [away, i];
    }
    if (at < 0) continue;
    keep[at] = 1;
    stack.push([from, at], [at, to]);
  }
  return points.filter((_, i) => keep[i] === 1);
}

const apart = (a: PointMm, b: PointMm): number => Math.hypot(a.xMm - b.xMm, a.yMm - b.yMm);

function fromLine({ xMm, yMm }: PointMm, a: PointMm, b: PointMm): number {
  const length = apart(a, b);
  return length === 0
    ? apart({ xMm, yMm }, a)
    : Math.abs((b.xMm - a.xMm) * (a.yMm - yMm) - (a.xMm - xMm) * (b.yMm - a.yMm)) / length;
}
