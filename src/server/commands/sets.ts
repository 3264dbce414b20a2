import { outlineEdges } from '@/core/bed/outline';
import { setScope, type Command } from '@/core/records/command';
import type { MeasuredEdges } from '@/core/model/seamSchema';
import { isKnown, withMeasures } from '@/core/records/pieceMeasures';
import { HERON_SLACK_ID, heronSlackRequests, samplePlans, writeHeronSlack } from '@/db/demo/heronSlack';
import { getDocument, listDocuments } from '@/db/documents';
import { type Database } from '@/db/storage';
import { edit, EditRefusedError, StaleEditError } from '@/db/journal';
import { putInSet, setFileOf } from '@/db/setFile';
import { type Done, type Work } from '../changes';
import { plannedAtBuild, withData } from '../data';
import { amountsOf } from '../figures';
import { FieldProblem } from '../fieldProblem';
import { shelfView } from '../views';
import { mustBeThere } from './records';

/** The sample is planned in threads before it is written. */
export async function loadSample(now: string): Promise<Work> {
  const shelf = withData((db) => {
    if (getDocument(db, 'set', HERON_SLACK_ID))
      throw new EditRefusedError('in use', 'The sample Heron Slack is already here.');
    return shelfView();
  });
  const amounts = await Promise.all(
    [...heronSlackRequests(shelf, now)].map(async ([id, request]) => [id, await amountsOf(request)] as const),
  );
  const plans = samplePlans(shelf, now, { ...plannedAtBuild(), ...Object.fromEntries(amounts) });
  return (db) => ({
    id: HERON_SLACK_ID,
    touched: edit(db, 'sets', 'Load the sample Heron Slack', now, (writer) => writeHeronSlack(writer, now, plans)),
  });
}

/** The set once more under a name of its own, without its batches; its measured copies when asked for. */
export function duplicateSet(
  db: Database,
  { setId, measured }: Extract<Command, { do: 'duplicate' }>,
  now: string,
): Done {
  const file = setFileOf(db, setId);
  const { putAway: _, ...data } = file.set.data;
  const name = `${data.name.slice(0, 54)} copy`;
  const set = { ...file.set, data: { ...data, name, job: null } };
  const label = `Duplicate ${data.name}`.slice(0, 80);
  return putInSet(db, { ...file, set, pieces: measured ? file.pieces : [], batches: [] }, now, { label });
}

/** Enters what was measured on copies of a set, all or nothing; a copy of which nothing is known any more is dropped. */
export function measurePieces(
  db: Database,
  { setId, pieces, label }: Extract<Command, { do: 'measure' }>,
  now: string,
): Done {
  const set = mustBeThere(db, setId);
  const designs = listDocuments(db, 'design', setId).records;
  const known = listDocuments(db, 'piece', setId).records;
  const touched = edit(db, setScope(setId), label ?? 'Measure pieces', now, (writer) => {
    pieces.forEach(({ designId, copy, version, edges, shimsMm }, i) => {
      const design = designs.find(({ id }) => id === designId);
      if (!design) throw new FieldProblem(['pieces', i, 'designId'], 'This design is no longer there.');
      if (copy > design.data.copies)
        throw new FieldProblem(
          ['pieces', i, 'copy'],
          `${design.data.tag} has ${design.data.copies} copies; there is no #${copy}.`,
        );
      const wrong = Object.keys(edges ?? {}).find(
        (edge) => !(outlineEdges(design.data.outline) as readonly string[]).includes(edge),
      );
      if (wrong) throw new FieldProblem(['pieces', i, 'edges', wrong], `${design.data.tag} has no ${wrong} edge.`);
      const old = known.find((piece) => piece.data.designId === designId && piece.data.copy === copy);
      const next = withMeasures(
        old?.data ?? { designId, copy, measured: { atLevelMm: set.data.levelMm, readings: [], fillMl: null } },
        edges && measuredAt(edges, now),
        shimsMm,
      );
      if ((old?.version ?? null) !== version && old)
        throw new StaleEditError(
          'piece',
          old.id,
          `${design.data.tag} #${copy} was measured in another window since you opened it. Nothing was overwritten.`,
        );
      if (!old) writer.add('piece', crypto.randomUUID(), next, setId);
      else if (isKnown(next)) writer.put('piece', old.id, next, version);
      else writer.remove('piece', old.id, version);
    });
  });
  return { id: setId, touched };
}

/** Readings of edges with when they came. */
const measuredAt = (edges: MeasuredEdges, at: string): MeasuredEdges =>
  Object.fromEntries(Object.entries(edges).map(([edge, measured]) => [edge, measured && { ...measured, at }]));

/** Gives edges of a set's designs a standard, or takes it from them. */
export function giveStandards(
  db: Database,
  { setId, edges, label }: Extract<Command, { do: 'give' }>,
  now: string,
): Done {
  const standards = mustBeThere(db, setId).data.standards ?? [];
  edges.forEach(({ standardId }, i) => {
    if (standardId !== null && !standards.some(({ id }) => id === standardId))
      throw new FieldProblem(['edges', i, 'standardId'], 'This edge standard is no longer there.');
  });
  const designs = listDocuments(db, 'design', setId).records;
  const touched = edit(db, setScope(setId), label ?? 'Give edges a standard', now, (writer) => {
    for (const designId of new Set(edges.map((edge) => edge.designId))) {
      const design = designs.find(({ id }) => id === designId)?.data;
      if (!design) throw new FieldProblem(['edges'], 'One of these designs is no longer there.');
      const own = edges.filter((edge) => edge.designId === designId);
      const [{ version }] = own as [(typeof own)[0]];
      const kept = Object.entries(design.edgeStandards ?? {}).filter(
        ([name]) => !own.some(({ edge }) => edge === name),
      );
      const given = own.flatMap(({ edge, standardId }) => (standardId === null ? [] : [[edge, standardId] as const]));
      writer.put('design', designId, { ...design, edgeStandards: Object.fromEntries([...kept, ...given]) }, version);
    }
  });
  return { id: setId, touched };
}
