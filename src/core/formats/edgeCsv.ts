import { edgeLengthMm, outlineEdges } from '../bed/outline';
import { EDGE_NAMES, type EdgeName, type PieceDesign } from '../model/designSchema';
import type { PieceRecord } from '../records/recordSchemas';
import { measuredEdgeSchema, type MeasuredEdge } from '../model/seamSchema';
import { readCsv, writeCsv } from './csv';
import type { Stored } from '../model/stored';

const COLUMNS = ['piece', 'edge', 'reading', 'along_mm', 'height_mm'] as const;

/** What was measured on the edges of one copy. */
export interface MeasuredCopyEdges {
  designId: string;
  copy: number;
  edges: Partial<Record<EdgeName, MeasuredEdge>>;
}

/** Readings of many pieces from a file, or what is wrong with which line. */
export interface ParsedEdges {
  copies: MeasuredCopyEdges[];
  errors: { line: number; message: string }[];
}

type Designs = readonly Stored<PieceDesign>[];

/** The design and the copy that a name such as `HS-1 #2` means; a design with one copy goes by its tag alone, too. */
function copyNamed(name: string, designs: Designs): { design: Stored<PieceDesign>; copy: number } | string {
  const found = /^(.*?)(?:\s*#(\d+))?$/.exec(name.trim());
  const design = designs.find(({ data }) => data.tag === found?.[1]?.trim());
  if (!design) return `There is no piece ${name}.`;
  if (found?.[2] === undefined && design.data.copies > 1)
    return `Say which copy of ${design.data.tag} it is, for example ${design.data.tag} #2.`;
  const copy = Number(found?.[2] ?? 1);
  return copy >= 1 && copy <= design.data.copies
    ? { design, copy }
    : `${design.data.tag} has ${design.data.copies} ${design.data.copies === 1 ? 'copy' : 'copies'}; there is no #${copy}.`;
}

/** Readings in progress: levels by their place along the edge. */
interface Gathering {
  bed: MeasuredEdge['bed'];
  levels: { atMm: number; heightMm: number }[];
}

/**
 * Reads what was measured along the edges of many pieces: one reading a line, piece, edge, `bed` or `level`, mm along from
 * the edge's west or south end, mm above the underside. Levels are taken at both ends and the middle; one that was not measured
 * stands between its neighbours.
 */
export function parseEdgeCsv(text: string, designs: Designs): ParsedEdges {
  const { columns, rows } = readCsv(text);
  const missing = COLUMNS.filter((column) => !columns.includes(column));
  if (missing.length > 0)
    return {
      copies: [],
      errors: [
        {
          line: 1,
          message: `The first line must name the columns ${COLUMNS.join(', ')}; ${missing.join(' and ')} ${missing.length === 1 ? 'is' : 'are'} missing.`,
        },
      ],
    };
  const gathered = new Map<string, { design: Stored<PieceDesign>; copy: number; edges: Map<EdgeName, Gathering> }>();
  const errors: ParsedEdges['errors'] = [];
  rows.forEach((row, i) => {
    const wrong = takeRow(row, designs, gathered);
    if (wrong) errors.push({ line: i + 2, message: `Line ${i + 2}: ${wrong}` });
  });
  if (rows.length === 0) errors.push({ line: 2, message: 'There are no readings under the first line.' });
  const copies = [...gathered.values()].map(({ design, copy, edges }): MeasuredCopyEdges => ({
    designId: design.id,
    copy,
    edges: Object.fromEntries(
      [...edges].map(([edge, { bed, levels }]) => [
        edge,
        {
          bed: bed.sort((a, b) => a.atMm - b.atMm),
          levels: threeLevels(levels, edgeLengthMm(design.data.outline, edge)),
        },
      ]),
    ),
  }));
  return { copies: errors.length > 0 ? [] : copies, errors };
}

function takeRow(
  row: Record<string, string>,
  designs: Designs,
  gathered: Map<string, { design: Stored<PieceDesign>; copy: number; edges: Map<EdgeName, Gathering> }>,
): string | null {
  const [name, edgeText, kind, along, height] = COLUMNS.map((column) => (row[column] ?? '').trim()) as [
    string,
    string,
    string,
    string,
    string,
  ];
  const named = copyNamed(name, designs);
  if (typeof named === 'string') return named;
  const { design, copy } = named;
  const edge = EDGE_NAMES.find((candidate) => candidate === edgeText.toLowerCase());
  if (!edge || !outlineEdges(design.data.outline).includes(edge))
    return `${design.data.tag} has no ${edgeText || 'such'} edge.`;
  if (kind !== 'bed' && kind !== 'level') return `The reading must be bed or level, not “${kind}”.`;
  const [atMm, heightMm] = [along, height].map((text) => (text === '' ? NaN : Number(text.replace(',', '.')))) as [
    number,
    number,
  ];
  if (!Number.isFinite(atMm) || !Number.isFinite(heightMm))
    return `“${Number.isFinite(atMm) ? height : along}” is not a number of mm.`;
  const lengthMm = edgeLengthMm(design.data.outline, edge);
  if (atMm < 0 || atMm > lengthMm + 0.5)
    return `${atMm} mm lies past the end of the edge, which is ${lengthMm.toFixed(1)} mm long.`;
  const reading = measuredEdgeSchema.shape.bed.element.safeParse({ atMm, heightMm });
  if (!reading.success) return reading.error.issues[0]!.message;
  const key = `${design.id} ${copy}`;
  const piece = gathered.get(key) ?? { design, copy, edges: new Map<EdgeName, Gathering>() };
  const own = piece.edges.get(edge) ?? { bed: [], levels: [] };
  (kind === 'bed' ? own.bed : own.levels).push(reading.data);
  piece.edges.set(edge, own);
  gathered.set(key, piece);
  return null;
}

/** Levels at start, middle and end from those that were measured: the mean where several lie near, else between its neighbours. */
function threeLevels(levels: Gathering['levels'], lengthMm: number): MeasuredEdge['levels'] {
  if (levels.length === 0) return null;
  const near = (share: number): number | null => {
    const close = levels.filter(({ atMm }) => Math.abs(atMm / lengthMm - share) <= 0.25);
    return close.length > 0 ? close.reduce((sum, { heightMm }) => sum + heightMm, 0) / close.length : null;
  };
  const [start, middle, end] = [near(0), near(0.5), near(1)];
  const centre = middle ?? mean(start ?? end!, end ?? start!);
  return [start ?? centre, centre, end ?? centre];
}

const mean = (a: number, b: number): number => (a + b) / 2;

/** What was measured on a set's edges as a file that `parseEdgeCsv` reads back. */
export function edgeCsv(pieces: readonly Stored<PieceRecord>[], designs: Designs): string {
  const rows = pieces.flatMap(({ data: { designId, copy, edges = {} } }) => {
    const design = designs.find(({ id }) => id === designId);
    if (!design) return [];
    const name = `${design.data.tag} #${copy}`;
    return (Object.entries(edges) as [EdgeName, MeasuredEdge][]).flatMap(([edge, { bed, levels }]) => {
      const lengthMm = edgeLengthMm(design.data.outline, edge);
      return [
        ...(levels ?? []).map((level, i) => line(name, edge, 'level', (lengthMm * i) / 2, level)),
        ...bed.map(({ atMm, heightMm }) => line(name, edge, 'bed', atMm, heightMm)),
      ];
    });
  });
  return writeCsv(COLUMNS, rows);
}

const line = (
  piece: string,
  edge: string,
  reading: 'bed' | 'level',
  alongMm: number,
  heightMm: number,
): Record<(typeof COLUMNS)[number], string | number> => ({
  piece,
  edge,
  reading,
  along_mm: round(alongMm),
  height_mm: round(heightMm),
});

const round = (mm: number): number => Math.round(mm * 100) / 100;
