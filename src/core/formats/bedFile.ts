import { z } from 'zod';
import { checkDesign } from '../bed/checkDesign';
import { debrisMl } from '../bed/features';
import { pieceDesignSchema } from '../model/designSchema';
import { levelForMl, surfaceMm2, volumeMl } from '../bed/volumeCurve';
import { waterAt } from '../bed/water';
import { levelBed, surveyBed, surveyWater } from '../plan/beds';
import { meniscusOf, namedPools } from '../plan/planPiece';
import { levelMmSchema } from '../plan/request';
import { commandFailed, readJson, roundedJson, type CommandResult } from './planFile';

/** One piece and a level: what the `bed` command reads. */
export const bedRequestSchema = z.object({
  format: z.literal('aguada.bed-request', { error: 'Must be "aguada.bed-request"' }),
  version: z.literal(1, { error: 'This program reads version 1' }),
  piece: pieceDesignSchema,
  levelMm: levelMmSchema,
  /** A volume whose level is wanted, if any. */
  fillMl: z.number().min(0, 'Cannot be negative').max(1_000_000).optional(),
});
export type BedRequest = z.infer<typeof bedRequestSchema>;

/** Entries of the volume curve in a report. */
const CURVE_STEPS = 40;

/** Areas, volume curve, pools and spills, dams, menisci and edge profiles of one piece. Lengths mm, areas cm², volumes ml. */
export function bedReport({ piece, levelMm, fillMl }: BedRequest): object {
  const bed = levelBed(surveyBed(piece), piece, levelMm);
  const water = surveyWater(bed, piece, levelMm);
  const top = Math.max(levelMm, piece.landMm);
  const levels = Array.from(
    { length: CURVE_STEPS + 1 },
    (_, i) => bed.curve.lowestMm + ((top - bed.curve.lowestMm) * i) / CURVE_STEPS,
  );
  return {
    format: 'aguada.bed',
    version: 1,
    tag: piece.tag,
    levelMm,
    cellMm: bed.cellMm,
    outlineCm2: bed.outlineCm2,
    lowestMm: bed.curve.lowestMm,
    water: waterAt(bed.curve, levelMm),
    debrisMl: debrisMl(piece),
    ...(fillMl !== undefined && { fill: { ml: fillMl, levelMm: levelForMl(bed.curve, fillMl) } }),
    curve: levels.map((level) => ({
      levelMm: level,
      volumeMl: volumeMl(bed.curve, level),
      surfaceCm2: surfaceMm2(bed.curve, level) / 100,
    })),
    pools: namedPools(water.pools),
    dams: water.dams,
    meniscus: meniscusOf(water),
    edges: bed.profiles.map(({ edge, profile }) => ({
      edge,
      lengthMm: profile.lengthMm,
      stepMm: profile.stepMm,
      heightsMm: Array.from(profile.heightMm),
    })),
    problems: checkDesign(piece, levelMm),
  };
}

/** The `bed` command, without its files: text in, text out, and the exit code. */
export function bedCommand(text: string): CommandResult {
  const read = readJson(text, bedRequestSchema);
  if (!read.ok) return commandFailed(read.errors);
  const stops = checkDesign(read.request.piece, read.request.levelMm).filter(({ severity }) => severity === 'stop');
  if (stops.length > 0)
    return commandFailed(stops.map(({ path, message }) => ({ field: ['piece', ...path].join('.'), message })));
  return { output: roundedJson(bedReport(read.request)), errors: '', exitCode: 0 };
}
