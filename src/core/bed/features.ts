import type { BedGrid } from './grid';
import type { Feature, FeatureKind, FeatureOf, PieceDesign } from '../model/designSchema';
import type { Shaper } from './shapers/carve';
import { channel, fork, ring } from './shapers/channels';
import { hill, plateau } from './shapers/land';
import { scan } from './shapers/scan';
import { log, post, rock, stone, wreck } from './shapers/solids';
import { basin, pool, shore, terrace } from './shapers/waters';

/** Loose debris has no place of its own: it only takes up room (`debrisMl`). */
const debris: Shaper<'debris'> = () => undefined;

const SHAPERS: { [K in FeatureKind]: Shaper<K> } = {
  channel,
  fork,
  shore,
  pool,
  ring,
  basin,
  terrace,
  hill,
  plateau,
  rock,
  post,
  stone,
  log,
  wreck,
  debris,
  scan,
};

/** Applies one feature to the bed in place. */
export function applyFeature<K extends FeatureKind>(
  grid: BedGrid,
  feature: Extract<Feature, { kind: K }>,
  design: PieceDesign,
): void {
  (SHAPERS[feature.kind] as Shaper<K>)(grid, feature as FeatureOf<K>, design);
}

/** Room that loose debris takes up in the water of a design, ml. */
export const debrisMl = ({ features }: Pick<PieceDesign, 'features'>): number =>
  features.reduce((sum, feature) => sum + (feature.kind === 'debris' ? feature.volumeMl : 0), 0);
