'use client';

import { explainPiece, MADE_WORDS, spillWords, type PieceFigure } from '@/core/plan';
import { closedRuns } from '@/core/bed/dams';
import { Suspense, use, useMemo, useState, type ReactNode } from 'react';
import type { Amounts, PiecePlan, PoolPlan } from '@/core/plan';
import type { PieceDesign } from '@/core/model/designSchema';
import type { Stored } from '@/core/model/stored';
import { detailsSeenTo } from '@/core/tint/visibility';
import { formatMeasure, measureText } from '@/core/units/formatMeasure';
import type { Quantity } from '@/core/units/quantities';
import { Held } from '@/ui/held/Held';
import { Problems } from '@/ui/mark/Problems';
import { useUnits } from '@/ui/measure/UnitsContext';
import { samePiece, type PieceRef } from '@/core/model/pieceRef';
import { cutProfile, sectionSvg } from '@/core/formats/svg';
import { overProfile } from '@/core/picture/bedPicture';
import { portSnaps, standardSnaps } from '@/core/bed/snaps';
import { PlanView } from '@/ui/plan/PlanView';
import { SectionCut } from '@/ui/plan/SectionCut';
import type { Cut } from '@/ui/plan/SectionLine';
import { saveFile } from '@/ui/saveFile';
import { Reading, Readings } from '@/ui/reading/Reading';
import { useAwake } from '@/ui/useAwake';
import { useDesk, useDeskPlan, useLiveDesk } from '../desk/DeskContext';
import { pictureBed, pictureOf } from '../desk/pictures';
import { copyNames } from '@/core/model/pieceRef';
import { damWords } from '../desk/summarise';
import { BedFiles } from './BedFiles';
import { BodyAndMould } from './BodyAndMould';
import { BenchLevel } from './BenchLevel';
import { Hint } from '../help/Hint';
import { FirstPiece } from './FirstPiece';
import { DesignList } from './DesignList';
import { MeasuredCopy } from './MeasuredCopy';
import { Measures } from './Measures';
import { EdgeNotes } from './EdgeNotes';
import { PoolList } from './PoolList';
import { TiltReadings } from './TiltReadings';
import styles from './ShapeStage.module.css';

const NO_POOLS: readonly PoolPlan[] = [];

/** Shape: the pieces, their beds from above, and what each takes. */
export function ShapeStage() {
  const { desk, openId } = useDesk();
  const awake = useAwake();
  const design = desk.designs.find(({ id }) => id === openId);
  const [shown, setShown] = useState<{ id: string; copy: number | null } | null>(null);
  const copy = shown && shown.id === openId ? shown.copy : null;
  return (
    <>
      <Hint step="level" />
      <div className={styles.stage}>
        <DesignList />
        {design ? (
          <>
            <section aria-label={`${design.data.name} from above`} className={styles.plan}>
              <h2 className="visually-hidden">{design.data.name} from above</h2>
              {awake ? (
                <Plan
                  key={design.id}
                  design={design}
                  copy={copy}
                  onCopy={(number) => setShown({ id: design.id, copy: number })}
                />
              ) : (
                <div className={styles.planHeld} />
              )}
            </section>
            <section aria-label={`Measures of ${design.data.name}`} className={styles.measures}>
              <h2 className={styles.heading}>Measures</h2>
              <Measures key={design.id} design={design} />
            </section>
            <PieceNumbers design={design} copy={copy} />
          </>
        ) : (
          <FirstPiece />
        )}
      </div>
    </>
  );
}

interface CopyProps {
  design: Stored<PieceDesign>;
  /** The copy that is shown; null for the bed as drawn. */
  copy: number | null;
}

function Plan({ design, copy, onCopy }: CopyProps & { onCopy: (copy: number | null) => void }) {
  const [differences, setDifferences] = useState(false);
  const [cut, setCut] = useState<Cut | null>(design.data.sectionLine ?? null);
  const isOwn = cut !== null && JSON.stringify(cut) === JSON.stringify(design.data.sectionLine);
  const { desk, shapeDesign } = useDesk();
  const measured =
    desk.pieces.find((piece) => piece.data.designId === design.id && piece.data.copy === copy)?.data.measured ?? null;
  const { designs, levelMm, tint, dragging } = useLiveDesk();
  const live = designs.find(({ id }) => id === design.id)?.data ?? design.data;
  const shown = useMemo(() => (measured ? { ...live, measured } : live), [live, measured]);
  const picture = useMemo(() => pictureOf(shown, levelMm, tint, dragging), [shown, levelMm, tint, dragging]);
  const lostMm = useMemo(() => detailsSeenTo(shown.bedColour, tint, 'across the table').light, [shown.bedColour, tint]);
  const { standards } = desk.set.data;
  const snaps = useMemo(
    () => [
      ...standardSnaps(standards ?? []),
      ...portSnaps(desk.designs.filter(({ id }) => id !== design.id).map(({ data }) => data)),
    ],
    [desk.designs, design.id, standards],
  );
  const section = useMemo(() => {
    if (!cut) return null;
    const profile = cutProfile(picture.drawnGrid, cut.from, cut.to);
    return {
      profile,
      overMm:
        picture.drawnGrid === picture.grid ? null : overProfile(profile, cutProfile(picture.grid, cut.from, cut.to)),
    };
  }, [picture.drawnGrid, picture.grid, cut]);
  const { plan } = useDeskPlan();
  const pools = (dragging ? null : piecePlan(plan, { designId: design.id, copy })?.pools) ?? NO_POOLS;
  return (
    <>
      <div className={styles.picture}>
        <PlanView
          design={shown}
          levelMm={levelMm}
          {...picture}
          moving={dragging}
          pools={pools}
          readings={measured?.readings}
          drawn={measured && differences ? pictureBed(live, dragging).grid : undefined}
          snaps={snaps}
          cut={cut}
          onCut={setCut}
          lostMm={lostMm}
          onMove={measured ? undefined : (change, label, done) => shapeDesign(design.id, change, label, done)}
        />
      </div>
      {section && section.profile.lengthMm > 0 && (
        <SectionCut
          {...section}
          levelMm={levelMm}
          landColour={live.landColour}
          rockColour={live.rockColour}
          look={picture.look}
          isOwn={isOwn}
          onOwn={() =>
            shapeDesign(
              design.id,
              ({ sectionLine: _, ...newest }) => (isOwn ? newest : { ...newest, sectionLine: cut! }),
              isOwn ? `Forget the section line of ${live.tag}` : `Keep a section line for ${live.tag}`,
            )
          }
          onSave={() =>
            saveFile(`${live.tag}-section.svg`, sectionSvg(live, section.profile, levelMm), 'image/svg+xml')
          }
        />
      )}
      <BedFiles design={shown} levelMm={levelMm} />
      <MeasuredCopy
        design={design}
        copy={copy}
        onCopy={onCopy}
        differences={differences}
        onDifferences={setDifferences}
      />
      <BenchLevel />
      <BodyAndMould design={design} piece={piecePlan(plan, { designId: design.id, copy })} />
    </>
  );
}

/** The plan of a copy that was measured, else of the design. */
const piecePlan = (plan: Amounts | null, ref: PieceRef): PiecePlan | undefined =>
  plan?.pieces.find((piece) => samePiece(piece, ref)) ??
  plan?.pieces.find((piece) => piece.designId === ref.designId && (piece.copy === null || ref.copy === null));

function PieceNumbers(props: CopyProps) {
  const { plan, planning, later } = useDeskPlan();
  const held = (
    <section aria-label="Numbers" className={styles.numbers} aria-busy={planning}>
      {planning && <Held label="Working out what it takes" />}
    </section>
  );
  if (plan) return <NumbersOf {...props} plan={plan} held={held} />;
  if (!later) return held;
  return (
    <Suspense fallback={held}>
      <LateNumbers {...props} later={later} held={held} />
    </Suspense>
  );
}

/** The numbers as they come in with the page: they stand in its HTML before it is awake. */
function LateNumbers({ later, ...props }: CopyProps & { later: Promise<Amounts>; held: ReactNode }) {
  return <NumbersOf {...props} plan={use(later)} />;
}

function NumbersOf({ design, copy, plan, held }: CopyProps & { plan: Amounts; held: ReactNode }) {
  const { mend } = useDesk();
  const awake = useAwake();
  const { request, planning } = useDeskPlan();
  const units = useUnits();
  const piece = piecePlan(plan, { designId: design.id, copy });
  if (!request || !piece) return held;
  const reading = (
    label: string,
    figure: PieceFigure,
    value: number,
    quantity: Quantity,
    options: { strong?: boolean; note?: string; decimals?: number } = {},
  ): React.ReactNode => {
    const { digits, unit } = measureText(value, quantity, units, options.decimals);
    return (
      <Reading
        label={label}
        digits={digits}
        unit={unit}
        strong={options.strong ?? false}
        note={options.note}
        explain={() => explainPiece(figure, piece, { request, plan, prefs: units })}
      />
    );
  };
  const copies = piece.copies;
  const layers = piece.layers.filter(({ volumeMl }) => volumeMl > 0);
  const brim = piece.pools
    .flatMap(({ spill, levelMm }) => (spill ? [{ spill, left: spill.levelMm - levelMm }] : []))
    .sort((a, b) => a.left - b.left)[0]?.spill;
  const damMm = closedRuns(piece.dams).reduce((sum, { stripMm }) => sum + stripMm, 0);
  return (
    <section aria-label="Numbers" className={styles.numbers} aria-busy={planning}>
      <h2 className={styles.heading}>
        {piece.tag}, {piece.measured ? 'as measured' : copies === 1 ? 'one piece' : `each of ${copies}`}
      </h2>
      <Readings>
        {reading('Water in each', 'volume', piece.water.volumeMl, 'volume', { strong: true })}
        {reading('To pour into each', 'grams', piece.pouredGrams, 'mass', {
          strong: true,
          note: `± ${formatMeasure(piece.uncertainGrams, 'mass', units)}, ${piece.measured ? 'as measured' : MADE_WORDS[piece.madeBy]}${copies > 1 ? `; ${formatMeasure(piece.pouredGrams * copies, 'mass', units)} for all ${copies}` : ''}`,
        })}
        {reading('Surface', 'surface', piece.water.surfaceCm2 * 100, 'area')}
        {reading('Deepest', 'greatestDepth', piece.water.greatestDepthMm, 'length')}
        {reading('Mean depth', 'meanDepth', piece.water.meanDepthMm, 'length')}
        <Reading
          label="Layers"
          digits={String(layers.length)}
          explain={() => explainPiece('layers', piece, { request, plan, prefs: units })}
          note={
            layers.length > 1
              ? layers.map(({ pouredGrams }) => formatMeasure(pouredGrams, 'mass', units)).join(' + ')
              : undefined
          }
        />
        {reading('Creeps up walls', 'meniscus', piece.meniscus.ml, 'volume', {
          decimals: 2,
          ...(piece.meniscus.lipMm > 0 && {
            note: `leaves a lip of ${formatMeasure(piece.meniscus.lipMm, 'length', units)} at the dams`,
          }),
        })}
        {brim &&
          reading('Would run over at', 'brim', brim.levelMm, 'length', {
            note: `${piece.pools.length > 1 ? `${piece.pools.length} pools; first ` : ''}${spillWords(brim)}`,
          })}
        {reading('Dam strip', 'dams', damMm, 'length', {
          note: `${piece.copy === null && copies > 1 ? `on each of ${copyNames(piece.copyNumbers)}: ` : ''}${piece.dams.length === 0 ? 'no open edge' : damWords(piece.dams, units)}`,
        })}
      </Readings>
      {awake && <EdgeNotes design={design} />}
      <PoolList design={design} piece={piece} setLevelMm={request.set.levelMm} />
      {piece.tilt && (
        <TiltReadings
          piece={piece}
          tilt={piece.tilt}
          explain={() => explainPiece('tilt', piece, { request, plan, prefs: units })}
        />
      )}
      <Problems
        problems={plan.problems.filter((problem) => problem.piece && samePiece(problem.piece, piece))}
        onMend={mend}
      />
    </section>
  );
}
