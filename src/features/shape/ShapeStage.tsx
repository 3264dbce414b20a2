'use client';

import { explainPiece, spillWords, type PieceFigure } from '@/core/plan';
import { closedRuns } from '@/core/bed/dams';
import type { PoolPlan } from '@/core/plan';
import type { PieceDesign } from '@/core/bed/schema';
import type { Stored } from '@/core/records/schema';
import { formatMeasure, measureText } from '@/core/units/formatMeasure';
import type { Quantity } from '@/core/units/quantities';
import { Problems } from '@/ui/mark/Problems';
import { useUnits } from '@/ui/measure/UnitsContext';
import { PlanView } from '@/ui/plan/PlanView';
import { Reading, Readings } from '@/ui/reading/Reading';
import { useDesk, useDeskPlan, useLiveDesk } from '../desk/DeskContext';
import { useBedPicture } from '../desk/useBed';
import { damWords } from '../pour/summarise';
import { BenchLevel } from './BenchLevel';
import { DesignList } from './DesignList';
import { Measures } from './Measures';
import { TiltReadings } from './TiltReadings';
import styles from './ShapeStage.module.css';

const NO_POOLS: readonly PoolPlan[] = [];

/** Shape: the pieces, their beds from above, and what each takes. */
export function ShapeStage() {
  const { desk, openId } = useDesk();
  const design = desk.designs.find(({ id }) => id === openId);
  return (
    <div className={styles.stage}>
      <DesignList />
      {design ? (
        <>
          <Plan key={design.id} design={design} />
          <section aria-label={`Measures of ${design.data.name}`} className={styles.measures}>
            <h2 className={styles.heading}>Measures</h2>
            <Measures key={design.id} design={design} />
          </section>
          <PieceNumbers design={design} />
        </>
      ) : (
        <p className={styles.teach}>
          Add the first piece: a tile with a channel, a board with a shore, a base with a pool. Each comes drawn for the level of the set; then drag its ports and rocks, or type its measures. <code>4 3/4&quot;</code>, <code>16 cm</code> and <code>3*40+2</code> all work.
        </p>
      )}
    </div>
  );
}

function Plan({ design }: { design: Stored<PieceDesign> }) {
  const { shapeDesign } = useDesk();
  const { designs, levelMm, recipe, dragging } = useLiveDesk();
  const live = designs.find(({ id }) => id === design.id)?.data ?? design.data;
  const picture = useBedPicture(live, levelMm, recipe, dragging);
  const { plan } = useDeskPlan();
  const pools = (dragging ? null : plan?.pieces.find(({ tag }) => tag === live.tag)?.pools) ?? NO_POOLS;
  return (
    <section aria-label={`${design.data.name} from above`} className={styles.plan}>
      <h2 className="visually-hidden">{design.data.name} from above</h2>
      <PlanView design={live} levelMm={levelMm} {...picture} moving={dragging} pools={pools} onMove={(change, label, done) => shapeDesign(design.id, change, label, done)} />
      <BenchLevel />
    </section>
  );
}

function PieceNumbers({ design }: { design: Stored<PieceDesign> }) {
  const { mend } = useDesk();
  const { request, plan, planning } = useDeskPlan();
  const units = useUnits();
  const piece = plan?.pieces.find(({ tag }) => tag === design.data.tag);
  if (!plan || !request || !piece) return <section aria-label="Numbers" className={styles.numbers} aria-busy={planning} />;
  const reading = (label: string, figure: PieceFigure, value: number, quantity: Quantity, options: { strong?: boolean; note?: string; decimals?: number } = {}): React.ReactNode => {
    const { digits, unit } = measureText(value, quantity, units, options.decimals);
    return <Reading label={label} digits={digits} unit={unit} strong={options.strong ?? false} note={options.note} explain={() => explainPiece(figure, piece.tag, { request, plan, prefs: units })} />;
  };
  const copies = design.data.copies;
  const layers = piece.layers.filter(({ volumeMl }) => volumeMl > 0);
  const brim = piece.pools.flatMap(({ spill }) => spill ?? []).sort((a, b) => a.levelMm - b.levelMm)[0];
  const damMm = closedRuns(piece.dams).reduce((sum, { stripMm }) => sum + stripMm, 0);
  return (
    <section aria-label="Numbers" className={styles.numbers} aria-busy={planning}>
      <h2 className={styles.heading}>
        {design.data.tag}, {copies === 1 ? 'one piece' : `each of ${copies}`}
      </h2>
      <Readings>
        {reading('Water in each', 'volume', piece.water.volumeMl, 'volume', { strong: true })}
        {reading('To pour into each', 'grams', piece.pouredGrams, 'mass', { strong: true, ...(copies > 1 && { note: `${formatMeasure(piece.pouredGrams * copies, 'mass', units)} for all ${copies}` }) })}
        {reading('Surface', 'surface', piece.water.surfaceCm2 * 100, 'area')}
        {reading('Deepest', 'greatestDepth', piece.water.greatestDepthMm, 'length')}
        {reading('Mean depth', 'meanDepth', piece.water.meanDepthMm, 'length')}
        <Reading label="Layers" digits={String(layers.length)} explain={() => explainPiece('layers', piece.tag, { request, plan, prefs: units })} note={layers.length > 1 ? layers.map(({ pouredGrams }) => formatMeasure(pouredGrams, 'mass', units)).join(' + ') : undefined} />
        {reading('Creeps up walls', 'meniscus', piece.meniscus.ml, 'volume', { decimals: 2, ...(piece.meniscus.lipMm > 0 && { note: `leaves a lip of ${formatMeasure(piece.meniscus.lipMm, 'length', units)} at the dams` }) })}
        {brim && reading('Would run over at', 'brim', brim.levelMm, 'length', { note: `${piece.pools.length > 1 ? `${piece.pools.length} pools; first ` : ''}${spillWords(brim)}` })}
        {reading('Dam strip', 'dams', damMm, 'length', { note: piece.dams.length === 0 ? 'no open edge' : damWords(piece.dams, units) })}
      </Readings>
      {piece.tilt && <TiltReadings piece={piece} tilt={piece.tilt} explain={() => explainPiece('tilt', piece.tag, { request, plan, prefs: units })} />}
      <Problems problems={plan.problems.filter(({ tag }) => tag === piece.tag)} onMend={mend} />
    </section>
  );
}
