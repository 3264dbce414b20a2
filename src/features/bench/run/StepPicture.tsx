'use client';

import { fromBottle } from '@/core/pouring/portions';
import { pieceKey } from '@/core/model/pieceRef';
import { inCupGrams, restOf, type CupState } from '@/core/run/cupState';
import { layerOf, type RunState } from '@/core/run/runState';
import { cupOf, type OnScale } from '@/core/run/say';
import type { RunLayer } from '@/core/run/runSchema';
import type { RunStep } from '@/core/run/steps';
import { SLOW_FROM } from '@/core/run/overPoured';
import { cutPaths, levelAt, plainCut } from './waterIn';
import styles from './StepPicture.module.css';

interface VesselProps {
  scale: OnScale;
  /** What it shows; null while nothing reads for us. */
  grams: number | null;
  toleranceGrams: number;
  /** The target in words, at its line. */
  target: string;
}

const WIDE = 756;
const HIGH = 250;
/** How much of the vessel lies over its target. */
const HEADROOM = 1.16;

/** A cup as wide as the screen: it fills to the waterline of its target. Slow from the hatch on; the band is what may be off. */
export function Vessel({ scale, grams, toleranceGrams: tolerance, target }: VesselProps) {
  const top = Math.max(scale.stopGrams, scale.startGrams) * HEADROOM || 1;
  const y = (value: number): number => HIGH - (Math.min(top, Math.max(0, value)) / top) * HIGH;
  const line = y(scale.stopGrams);
  const shown = grams ?? scale.startGrams;
  const over = !scale.falls && shown > scale.stopGrams + tolerance;
  const slow = scale.startGrams + (scale.stopGrams - scale.startGrams) * SLOW_FROM;
  return (
    <svg className={styles.vessel} viewBox={`0 0 ${WIDE} ${HIGH + 4}`} preserveAspectRatio="none" aria-hidden>
      <defs>
        <pattern id="slow" width="14" height="14" patternUnits="userSpaceOnUse" patternTransform="rotate(35)">
          <rect width="5" height="14" className={styles.hatch} />
        </pattern>
      </defs>
      {!scale.falls && <rect x="0" width={WIDE} y={line} height={Math.max(0, y(slow) - line)} fill="url(#slow)" />}
      <rect
        x="0"
        width={WIDE}
        y={Math.max(y(shown), over ? line : 0)}
        height={HIGH - Math.max(y(shown), over ? line : 0)}
        className={styles.water}
      />
      {over && <rect x="0" width={WIDE} y={y(shown)} height={line - y(shown)} className={styles.over} />}
      {scale.startGrams > 0 && !scale.falls && (
        <path d={`M0 ${y(scale.startGrams)}H${WIDE}`} className={styles.partLine} />
      )}
      <rect
        x="0"
        width={WIDE}
        y={y(scale.stopGrams + tolerance)}
        height={Math.max(3, y(scale.stopGrams - tolerance) - y(scale.stopGrams + tolerance))}
        className={styles.band}
      />
      <path d={`M0 ${line}H${WIDE}`} className={styles.waterline} />
      <path
        d={`M2 0V${HIGH}Q2 ${HIGH + 2} 12 ${HIGH + 2}H${WIDE - 12}Q${WIDE - 2} ${HIGH + 2} ${WIDE - 2} ${HIGH}V0`}
        className={styles.glass}
      />
      <title>{target}</title>
    </svg>
  );
}

const ROW_HIGH = 190;
const GAP = 10;
/** More than these are not seen at a metre. */
const MOST_PIECES = 5;

interface RowProps {
  state: RunState;
  step: RunStep;
  cup: CupState;
  /** What has left the cup for the current piece so far. */
  grams: number | null;
}

/** The pieces of a cup as they stand: poured, being filled, still dry, and one waterline across all of them. */
export function PieceRow({ state, step, cup, grams }: RowProps) {
  const layer = layerOf(state, cup.layer);
  const done = cup.poured.filter(({ filler }) => !filler);
  const all = [
    ...done.map((one) => ({ ...one, share: one.plannedGrams > 0 ? one.grams / one.plannedGrams : 1 })),
    ...restOf(cup).map((one) => ({ ...one, key: pieceKey(one), share: null })),
  ];
  const current = step.kind === 'pour' ? all.findIndex(({ key }) => key === pieceKey(step.pour)) : all.length;
  const from = Math.max(0, Math.min(current - 1, all.length - MOST_PIECES));
  const shown = all.slice(from, from + MOST_PIECES);
  const width =
    (WIDE - GAP * (MOST_PIECES - 1)) / Math.min(MOST_PIECES, Math.max(3, shown.length)) - (shown.length > 3 ? 0 : GAP);
  const cuts = shown.map(({ designId }) => state.plan.pieces.find((piece) => piece.designId === designId)?.cut ?? null);
  const tallest = Math.max(layer.toMm + 1, ...cuts.flatMap((cut) => cut?.heightMm ?? []));
  const floorY = ROW_HIGH - 26;
  const scaleY = (floorY - 8) / tallest;
  return (
    <svg className={styles.row} viewBox={`0 0 ${WIDE} ${ROW_HIGH}`} aria-hidden>
      {shown.map((piece, i) => {
        const cut = cuts[i] ?? plainCut(layer.fromMm, layer.toMm);
        const here = from + i === current;
        const share = piece.share ?? (here && grams !== null ? grams / Math.max(0.1, piece.grams) : 0);
        const level = layer.toMm === layer.fromMm ? layer.toMm : levelAt(cut, layer.fromMm, layer.toMm, share);
        const paths = cutPaths(cut, Math.max(level, layer.fromMm), { width, scaleY, floorY });
        return (
          <g
            key={piece.key}
            transform={`translate(${i * (width + GAP)} 0)`}
            className={here ? styles.here : styles.other}
          >
            <path d={paths.water} className={styles.pieceWater} style={{ fill: colourOf(state, piece.designId) }} />
            <path d={paths.body} className={styles.body} />
            <text x={width / 2} y={ROW_HIGH - 5} textAnchor="middle" className={styles.tag}>
              {piece.tag}
              {piece.copy > 0 ? ` #${piece.copy}` : ''}
            </text>
          </g>
        );
      })}
      <path d={`M0 ${floorY - layer.toMm * scaleY}H${WIDE}`} className={styles.level} />
      <path d={`M0 ${floorY}H${WIDE}`} className={styles.table} />
    </svg>
  );
}

const colourOf = ({ plan }: RunState, designId: string): string =>
  plan.pieces.find((piece) => piece.designId === designId)?.colour ?? '#4a6b5a';

/** What a step is drawn as, where it is weighed or poured. */
export function StepPicture({
  state,
  step,
  scale,
  grams,
  target,
}: {
  state: RunState;
  step: RunStep;
  scale: OnScale | null;
  grams: number | null;
  target: string;
}) {
  const cup = cupOf(state, step);
  if (!cup || !scale) return null;
  const layer: RunLayer = layerOf(state, cup.layer);
  if (step.kind === 'pour' || step.kind === 'left') {
    const out = grams === null || step.kind === 'left' ? null : scale.falls ? scale.startGrams - grams : grams;
    return (
      <>
        <PieceRow state={state} step={step} cup={cup} grams={out} />
        {!fromBottle(layer, cup.plan) && (
          <CupBar
            holds={inCupGrams(cup, layer)}
            shown={scale.falls ? grams : null}
            stop={scale.falls ? scale.stopGrams : null}
            of={cup.plan.mixGrams}
          />
        )}
      </>
    );
  }
  return (
    <Vessel
      scale={scale}
      grams={grams}
      target={target}
      toleranceGrams={step.kind === 'weigh' ? step.toleranceGrams : state.plan.scaleStepGrams}
    />
  );
}

/** What is in the cup, and how far it falls with this piece. */
function CupBar({ holds, shown, stop, of }: { holds: number; shown: number | null; stop: number | null; of: number }) {
  const x = (value: number): number => (Math.max(0, Math.min(of, value)) / Math.max(1, of)) * WIDE;
  return (
    <svg className={styles.cupBar} viewBox={`0 0 ${WIDE} 34`} preserveAspectRatio="none" aria-hidden>
      <rect x="0" y="6" width={WIDE} height="22" className={styles.empty} />
      <rect x="0" y="6" width={x(shown ?? holds)} height="22" className={styles.water} />
      {stop !== null && <path d={`M${x(stop)} 0V34`} className={styles.waterline} />}
    </svg>
  );
}
