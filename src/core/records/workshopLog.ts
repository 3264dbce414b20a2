import { z } from 'zod';
import type { Shelf, ViewState } from './views';
import { copyNames } from '../model/pieceRef';
import type { StockItem, StockPart } from '../model/stockSchema';
import { toWallTime, wallMinutes, wallTimeSchema, weekdayOf, type WallTime } from '../time/wallTime';
import type { Swatch } from '../model/recipeSchema';
import type { MeasuredEdge, MeasuredEdges } from '../model/seamSchema';
import { findingWords } from './inspections';
import type { Stored } from '../model/stored';
import {
  inspectionSchema,
  logNoteSchema,
  type CopyFate,
  type CopyInspection,
  type CopyPhoto,
  type LogNote,
} from './recordSchemas';

/** What the workshop's log is made of: each is read out of what was recorded, but notes, which are the maker's own. */
export const LOG_KINDS = [
  'poured',
  'run',
  'looked over',
  'photo',
  'seam',
  'swatch',
  'became',
  'bought',
  'shelf',
  'note',
] as const;
export type LogKind = (typeof LOG_KINDS)[number];

const day = z.iso.date('A date such as 2026-12-12');

/** What entries may be asked about: a product or bottle that their batch took, a piece that it makes, a customer’s job. */
export const ABOUT = ['product', 'lot', 'piece', 'job'] as const;
export interface About {
  kind: (typeof ABOUT)[number];
  /** Its id; of a job the customer. */
  of: string;
}

/** What is asked of the log. Words are all to be found in an entry: of its notes, set, customer, pieces, products, bottles. */
export const logAskSchema = z.object({
  words: z.string().trim().max(80, 'At most 80 characters').default(''),
  /** None: all. */
  kinds: z.array(z.enum(LOG_KINDS)).max(LOG_KINDS.length).default([]),
  setId: z.string().min(1).max(40).optional(),
  /** One thing that entries are about. */
  about: z.object({ kind: z.enum(ABOUT), of: z.string().min(1).max(120) }).optional(),
  /** Entries of days before this one; the newest without it. */
  before: day.optional(),
});
export type LogAsk = z.infer<typeof logAskSchema>;

/** `lot:oc-kit-1` as a thing. */
function aboutIn(text: string): { kind: string; of: string } {
  const [kind = '', ...of] = text.split(':');
  return { kind, of: of.join(':') };
}

const askIn = (params: URLSearchParams) => ({
  words: params.get('words') ?? '',
  kinds: (params.get('kinds') ?? '').split(',').filter(Boolean),
  ...(params.get('set') && { setId: params.get('set') }),
  ...(params.get('about') && { about: aboutIn(params.get('about')!) }),
  ...(params.get('before') && { before: params.get('before') }),
});

/** An ask as an address carries it; throws where it carries none. */
export const logAskOf = (params: URLSearchParams): LogAsk => logAskSchema.parse(askIn(params));

/** The same for a page: what cannot be read asks for everything. */
export const readableAsk = (params: URLSearchParams): LogAsk =>
  logAskSchema.safeParse(askIn(params)).data ?? logAskSchema.parse({});

/** The address that carries an ask. */
export function logAddress({ words, kinds, setId, about, before }: LogAsk): string {
  const params = new URLSearchParams();
  if (words) params.set('words', words);
  if (kinds.length > 0) params.set('kinds', kinds.join(','));
  if (setId) params.set('set', setId);
  if (about) params.set('about', `${about.kind}:${about.of}`);
  if (before) params.set('before', before);
  return params.toString();
}

interface PieceCount {
  tag: string;
  copies: number;
}
type TaggedCopy<T> = T & { tag: string };

/** What is on record of an entry. */
export type LogRecord =
  | {
      kind: 'poured';
      layer: number;
      product: string;
      cups: number;
      discarded: number;
      mixedGrams: number;
      lostGrams: number;
      /** What it took of the lots, at their prices; null where no lot was entered of any of it. */
      money: number | null;
      temperatureC: number;
      pieces: readonly PieceCount[];
      notes: readonly string[];
    }
  | {
      kind: 'run';
      /** Null while it goes on. */
      minutes: number | null;
      givenUp: string | null;
      notes: readonly string[];
    }
  | {
      kind: 'looked over';
      copies: readonly TaggedCopy<Pick<CopyInspection, 'copy' | 'outcome' | 'findings' | 'note' | 'colour'>>[];
    }
  | { kind: 'photo'; copies: readonly TaggedCopy<Pick<CopyPhoto, 'copy' | 'photo' | 'width' | 'height'>>[] }
  | { kind: 'seam'; tag: string; copy: number; edges: MeasuredEdges }
  | {
      kind: 'swatch';
      colourantId: string;
      colourant: string;
      swatches: readonly Pick<Swatch, 'gramsPer100' | 'depthMm' | 'ground' | 'seen'>[];
    }
  | { kind: 'became'; fate: CopyFate['fate']; copies: readonly TaggedCopy<Pick<CopyFate, 'copy' | 'why'>>[] }
  | { kind: 'bought'; item: string; of: StockItem['kind']; amounts: readonly LogAmount[]; price: number }
  | { kind: 'shelf'; did: string; item: string; of: StockItem['kind']; amounts: readonly LogAmount[]; note: string }
  | { kind: 'note'; text: string };

interface LogAmount {
  part: StockPart;
  amount: number;
}

/** Where an entry stands: when, of which set, batch or lot. */
export interface LogPlace {
  key: string;
  at: WallTime;
  setId: string | null;
  set: string | null;
  batchId: string | null;
  /** The name of the batch, lot or run. */
  name: string;
  lotId: string | null;
  runId: string | null;
  /** Of a note: by which it is changed. */
  note: Stored<LogNote> | null;
}

/** One entry as it is read. */
export interface LogEntry extends LogPlace {
  kind: LogKind;
  title: string;
  /** What was measured and counted. */
  facts: string[];
  /** What the maker said. */
  said: string[];
  /** What was mixed of a product and what of it reached no piece; null where nothing was poured. */
  mixedGrams: number | null;
  lostGrams: number | null;
  price: number | null;
  photos: LogPhoto[];
  /** What was found on each piece that was looked over. */
  looked: LookedPiece[];
  href: string | null;
}

/** A piece as it was looked over, by its name. */
export interface LookedPiece extends Pick<CopyInspection, 'findings' | 'outcome' | 'note'> {
  piece: string;
}

/** A photo of a piece, by the piece’s name. */
export interface LogPhoto extends Pick<CopyPhoto, 'photo' | 'width' | 'height'> {
  of: string;
}

/** Days of the log, the newest first, their entries in the order of the day; `before` which day to go on, null at its end. */
export interface LogPage {
  days: { day: string; entries: LogEntry[] }[];
  before: string | null;
  /** Pieces of the set that is asked for: none where it is the whole workshop. */
  pieces: { id: string; name: string }[];
}

const nameSchema = z.string().trim().max(80);
/** What the log takes in: notes, and pieces as they were looked over. Sets, batches and pieces go by their names. */
export const logLineSchema = z.discriminatedUnion('what', [
  z.object({
    what: z.literal('note'),
    line: z.number().int().min(1),
    at: wallTimeSchema,
    set: nameSchema.nullable(),
    text: logNoteSchema.shape.text,
  }),
  z.object({
    what: z.literal('looked over'),
    line: z.number().int().min(1),
    at: wallTimeSchema,
    set: nameSchema.min(1, 'Of which set?'),
    batch: nameSchema.min(1, 'Of which batch?'),
    piece: nameSchema.min(1, 'Which piece?'),
    findings: inspectionSchema.shape.findings,
    outcome: inspectionSchema.shape.outcome,
    note: inspectionSchema.shape.note,
  }),
]);
export type LogLine = z.infer<typeof logLineSchema>;
export const MOST_LOG_LINES = 5000;

/** A week of the log, by its Monday. */
export interface LogWeek {
  monday: string;
  mixedGrams: number;
  lostGrams: number;
  money: number;
}

/** The log of the workshop as a page begins with it. */
export interface LogView extends Shelf, ViewState {
  weeks: LogWeek[];
  sets: { id: string; name: string }[];
  /** Bottles, drums and packs that were ever bought, the newest first, and who jobs were for. */
  lots: { id: string; name: string }[];
  customers: string[];
  page: LogPage;
}

const tenths = (grams: number): string => (Math.round(grams * 10) / 10).toFixed(1);
const amountWords = (of: StockItem['kind'], amounts: readonly LogAmount[]): string =>
  amounts
    .filter(({ amount }) => amount !== 0)
    .map(({ part, amount }) => {
      const much = of === 'consumable' ? `${Math.round(Math.abs(amount))} pieces` : `${tenths(Math.abs(amount))} g`;
      return part === 'all' ? much : `${much} of part ${part}`;
    })
    .join(', ');
const count = (n: number, one: string, more = `${one}s`): string => `${n} ${n === 1 ? one : more}`;
const pieceWords = (pieces: readonly PieceCount[]): string =>
  pieces.map(({ tag, copies }) => (copies === 1 ? tag : `${tag} × ${copies}`)).join(', ');
/** `HS-1 #1 to #4, HS-2 #3`. */
const copyWords = (copies: readonly { tag: string; copy: number }[]): string =>
  [...new Set(copies.map(({ tag }) => tag))]
    .map((tag) => `${tag} ${copyNames(copies.filter((one) => one.tag === tag).map(({ copy }) => copy))}`)
    .join(', ');

/** `east: water at 15.1, 15.0, 15.2 mm, 3 heights of the bed`. */
const edgeWords = (edge: string, levels: MeasuredEdge['levels'], heights: number): string =>
  `${edge}: ${[
    levels && `water at ${levels.map((mm) => mm.toFixed(1)).join(', ')} mm`,
    heights > 0 && `${count(heights, 'height')} of the bed`,
  ]
    .filter(Boolean)
    .join(', ')}`;

const OUTCOME_WORDS: Record<CopyInspection['outcome'], string> = {
  pass: 'good as they are',
  mend: 'to mend',
  remake: 'to make anew',
};

/** An entry from what is on record of it. Amounts stand in g, as sentences of the core do. */
export function logEntry(place: LogPlace, record: LogRecord): LogEntry {
  const entry = (
    title: string,
    facts: string[],
    said: readonly string[],
    href: string | null,
    price: number | null = null,
  ) => ({
    ...place,
    kind: record.kind,
    title,
    facts: facts.filter(Boolean),
    said: said.filter(Boolean),
    mixedGrams: record.kind === 'poured' ? record.mixedGrams : null,
    lostGrams: record.kind === 'poured' ? record.lostGrams : null,
    price,
    photos:
      record.kind === 'photo'
        ? record.copies.map(({ tag, copy, photo, width, height }) => ({ of: `${tag} #${copy}`, photo, width, height }))
        : [],
    looked:
      record.kind === 'looked over'
        ? record.copies.map(({ tag, copy, findings, outcome, note }) => ({
            piece: `${tag} #${copy}`,
            findings,
            outcome,
            note,
          }))
        : [],
    href,
  });
  const { setId, batchId, lotId, runId, name } = place;
  const inLog = setId && batchId ? `/sets/${setId}/log?batch=${batchId}` : null;
  const onShelf = lotId ? `/shelf?to=${lotId}` : null;
  switch (record.kind) {
    case 'poured': {
      const { layer, product, cups, discarded, mixedGrams, lostGrams, temperatureC, pieces, notes, money } = record;
      return entry(
        `${name}, layer ${layer}`,
        [
          `${tenths(mixedGrams)} g of ${product} in ${count(cups, 'cup')}, at ${temperatureC} °C${pieces.length > 0 ? `: ${pieceWords(pieces)}` : ''}`,
          lostGrams > 0 ? `${tenths(lostGrams)} g of it reached no piece` : '',
          discarded > 0 ? `${count(discarded, 'cup')} thrown away` : '',
        ],
        notes,
        inLog,
        money,
      );
    }
    case 'run':
      return entry(
        `${name} at the bench`,
        [
          record.minutes === null
            ? 'It goes on.'
            : `${count(Math.round(record.minutes), 'minute')} from first press to last`,
          record.givenUp !== null ? `given up${record.givenUp ? `: ${record.givenUp}` : ''}` : '',
        ],
        record.notes,
        runId && `/run/${runId}`,
      );
    case 'looked over': {
      const by = (outcome: CopyInspection['outcome']) => record.copies.filter((one) => one.outcome === outcome);
      return entry(
        `${name}: ${count(record.copies.length, 'piece')} looked over`,
        [
          ...(['pass', 'mend', 'remake'] as const).map((outcome) =>
            by(outcome).length > 0 ? `${OUTCOME_WORDS[outcome]}: ${copyWords(by(outcome))}` : '',
          ),
          ...record.copies.map(({ tag, copy, findings }) =>
            findings.length > 0 ? `${tag} #${copy}: ${findingWords(findings)}` : '',
          ),
          ...record.copies.map(({ tag, copy, colour }) =>
            colour ? `${tag} #${copy}: colour ΔE ${colour.apart.toFixed(1)} from the recipe, by a photo` : '',
          ),
        ],
        record.copies.map(({ note }) => note),
        inLog,
      );
    }
    case 'seam':
      return entry(
        `${record.tag} #${record.copy}, measured at its edges`,
        Object.entries(record.edges as Record<string, MeasuredEdge>).map(([edge, { levels, bed }]) =>
          edgeWords(edge, levels, bed.length),
        ),
        [],
        setId && `/sets/${setId}/match`,
      );
    case 'swatch':
      return entry(
        `${count(record.swatches.length, 'swatch', 'swatches')} of ${record.colourant}`,
        record.swatches.map(
          ({ gramsPer100, depthMm, ground, seen }) =>
            `${gramsPer100} g in 100 g, ${depthMm} mm over ${ground}: ${seen}`,
        ),
        [],
        `/shelf?to=${record.colourantId}`,
      );
    case 'photo':
      return entry(
        `${name}: ${count(new Set(record.copies.map(({ photo }) => photo)).size, 'photo')}`,
        [copyWords(record.copies)],
        [],
        inLog && `${inLog}&show=looked`,
      );
    case 'became':
      return entry(
        `${name}: ${count(record.copies.length, 'piece')} ${record.fate === 'delivered' ? 'handed over' : 'spoilt'}`,
        [copyWords(record.copies)],
        [...new Set(record.copies.map(({ why }) => why))],
        inLog,
      );
    case 'bought':
      return entry(
        `${record.item}, ${name}: bought`,
        [amountWords(record.of, record.amounts)],
        [],
        onShelf,
        record.price,
      );
    case 'shelf':
      return entry(
        `${record.item}, ${name}: ${record.did}`,
        [amountWords(record.of, record.amounts)],
        [record.note],
        onShelf,
      );
    case 'note':
      return entry('Note', [], [record.text], setId && `/sets/${setId}/shape`);
  }
}

const DAY_MINUTES = 1440;
/** The Monday of a day's week. */
export function mondayOf(date: string): string {
  const minutes = wallMinutes(`${date.slice(0, 10)}T00:00`);
  return toWallTime(minutes - weekdayOf(minutes) * DAY_MINUTES).slice(0, 10);
}

/** The day so many days after another. */
export const daysAfter = (date: string, days: number): string =>
  toWallTime(wallMinutes(`${date}T00:00`) + days * DAY_MINUTES).slice(0, 10);

/** So many weeks in a row up to that of `last`, those without an entry too. */
export function weeksInRow(known: readonly LogWeek[], last: string, howMany: number): LogWeek[] {
  const byMonday = new Map(known.map((week) => [week.monday, week]));
  const end = mondayOf(last);
  return Array.from({ length: howMany }, (_, i) => {
    const monday = daysAfter(end, (i - howMany + 1) * 7);
    return byMonday.get(monday) ?? { monday, mixedGrams: 0, lostGrams: 0, money: 0 };
  });
}

/** What weeks came to together; `fullest` the one with the most, null where nothing was poured. */
export function tideFigures(weeks: readonly LogWeek[]): {
  mixedGrams: number;
  lostGrams: number;
  money: number;
  fullest: LogWeek | null;
} {
  const sum = (of: (week: LogWeek) => number): number => weeks.reduce((total, week) => total + of(week), 0);
  const fullest = weeks.reduce<LogWeek | null>(
    (most, week) => (week.mixedGrams > (most?.mixedGrams ?? 0) ? week : most),
    null,
  );
  return {
    mixedGrams: sum(({ mixedGrams }) => mixedGrams),
    lostGrams: sum(({ lostGrams }) => lostGrams),
    money: sum(({ money }) => money),
    fullest,
  };
}
