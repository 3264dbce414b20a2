import type { DamMethod } from '../model/damMethods';
import type { BedProfile, OutlineProfile } from './profile';
import type { EdgeName, PieceDesign } from '../model/designSchema';

/** How far a dam stands above the level, and how far its strip overlaps the bank at each end. */
export const DAM_MARGIN_MM = 3;
export const DAM_OVERLAP_MM = 5;

/** A run of edge that lies below the level and must be closed before the pour. */
export interface DamRun {
  /** `rim` on a piece without straight edges. */
  edge: EdgeName | 'rim';
  method: DamMethod;
  /** Where the run starts and ends along the edge. */
  fromMm: number;
  toMm: number;
  lengthMm: number;
  /** Length of strip to cut (with the overlaps) and the height of its top above the underside. */
  stripMm: number;
  topMm: number;
  /** Lowest bed in the run: what the dam must hold is `level − lowest`. */
  lowestBedMm: number;
}

/** Runs below this are grid noise at a corner, not an opening. */
const SHORTEST_RUN_MM = 0.6;

/**
 * Every run of outline where the bed is below the level, from the profiles of its edges. Ends are interpolated
 * between samples. A run round the whole rim has the rim's full length.
 */
export const damRuns = (
  profiles: readonly OutlineProfile[],
  levelMm: number,
  methods: PieceDesign['dams'] = {},
): DamRun[] =>
  profiles.flatMap(({ edge, profile }) => {
    const runs = runsOf(edge, profile, levelMm).map((run) => ({ ...run, method: methods[edge] ?? DEFAULT_DAM }));
    return edge === 'rim' ? joinAcrossStart(runs, profile.lengthMm) : runs;
  });

/** Runs that are closed by something; the others are left to surface tension. */
export const closedRuns = (runs: readonly DamRun[]): DamRun[] => runs.filter(({ method }) => method !== 'none');

/** What closes an edge when nothing is said. */
export const DEFAULT_DAM: DamMethod = 'plastic strip';

function runsOf(edge: DamRun['edge'], profile: BedProfile, levelMm: number): Omit<DamRun, 'method'>[] {
  const { heightMm, stepMm, lengthMm } = profile;
  const runs: Omit<DamRun, 'method'>[] = [];
  let fromMm: number | null = heightMm[0]! < levelMm ? 0 : null;
  let lowest = heightMm[0]!;
  for (let i = 1; i < heightMm.length; i++) {
    const [before, here] = [heightMm[i - 1]!, heightMm[i]!];
    const crossing = (i - 1 + (levelMm - before) / (here - before)) * stepMm;
    if (fromMm === null && here < levelMm) [fromMm, lowest] = [crossing, here];
    if (fromMm === null) continue;
    lowest = Math.min(lowest, here);
    if (here >= levelMm) {
      runs.push(damRun(edge, fromMm, crossing, lowest, levelMm));
      fromMm = null;
    }
  }
  if (fromMm !== null) runs.push(damRun(edge, fromMm, lengthMm, lowest, levelMm));
  return runs.filter((run) => run.lengthMm >= SHORTEST_RUN_MM);
}

function damRun(
  edge: DamRun['edge'],
  fromMm: number,
  toMm: number,
  lowestBedMm: number,
  levelMm: number,
): Omit<DamRun, 'method'> {
  const lengthMm = toMm - fromMm;
  return {
    edge,
    fromMm,
    toMm,
    lengthMm,
    stripMm: lengthMm + 2 * DAM_OVERLAP_MM,
    topMm: levelMm + DAM_MARGIN_MM,
    lowestBedMm,
  };
}

/** On a closed rim, a run that ends at the start point and one that begins there are one. */
function joinAcrossStart(runs: DamRun[], rimMm: number): DamRun[] {
  const [first, last] = [runs[0], runs.at(-1)];
  if (!first || !last || first === last || first.fromMm > 0 || last.toMm < rimMm) return runs;
  const lengthMm = first.lengthMm + last.lengthMm;
  const joined: DamRun = {
    ...last,
    toMm: first.toMm,
    lengthMm,
    stripMm: lengthMm + 2 * DAM_OVERLAP_MM,
    lowestBedMm: Math.min(first.lowestBedMm, last.lowestBedMm),
  };
  return [...runs.slice(1, -1), joined];
}
