'use client';

import Button from '@mui/material/Button';
import { useEffect, useMemo, useState } from 'react';
import type { Stored } from '@/core/model/stored';
import { hexFromLinear, linearFromHex } from '@/core/tint/colour';
import {
  distance,
  hasPaintedLine,
  lineHiddenFromMm,
  overPaint,
  wishedByDepth,
  type GradientFound,
  type GradientWish,
} from '@/core/tint/gradient';
import type { Recipe } from '@/core/model/recipeSchema';
import { EVEN_POUR, type TintPour } from '@/core/model/tintSchema';
import { formatMeasure } from '@/core/units/formatMeasure';
import { ColourField } from '@/ui/controls/ColourField';
import { Tick } from '@/ui/controls/Tick';
import { Toggles } from '@/ui/controls/Toggles';
import { Held } from '@/ui/held/Held';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { solvePoursInWorker } from '@/workers/tinting';
import { useLiveDesk } from '../../desk/DeskContext';
import { differenceWords } from '../../desk/differenceWords';
import { useTint } from '../useTint';
import { HalfwaySlider } from './HalfwaySlider';
import { BandsPicture, PoursPicture } from './PoursPicture';
import { PourTable } from './PourTable';
import { usePours } from './usePours';
import styles from './PoursView.module.css';

const lane = Symbol('pours');
const FIRST_BED = { bedColour: '#b9a883' };
const COUNTS = ['2', '3', '4', '5'] as const;
const WAYS = [
  { value: 'strength', label: 'thinned' },
  { value: 'colourant', label: 'its own colourants' },
] as const;
/** Where the tint has done half of its work when nothing else is wished: the shore stays clear. */
const FIRST_HALF = 0.7;

/** Water that darkens as it is wished to: the wish drawn over the depth, the pours that come nearest to it, and the pours as they are. */
export function PoursView({ recipe }: { recipe: Stored<Recipe> }) {
  const { designs } = useLiveDesk();
  const { doses, clarity, deepestMm } = useTint();
  const { pours, put } = usePours(recipe);
  const units = useUnits();
  const [count, setCount] = useState<(typeof COUNTS)[number]>('3');
  const [by, setBy] = useState<GradientWish['by']>('strength');
  const [half, setHalf] = useState(FIRST_HALF);
  const [deep, setDeep] = useState<string | null>(null);
  const [hideFrom, setHideFrom] = useState<number | null>(null);
  const paint = designs[0]?.data ?? FIRST_BED;
  const even = useMemo(
    () => hexFromLinear(overPaint(paint, { clarity, doses }, deepestMm)(deepestMm)),
    [paint, clarity, doses, deepestMm],
  );
  const wish = useMemo((): GradientWish => {
    const each = Math.max(0.1, Math.round((deepestMm * 10) / Number(count)) / 10);
    return {
      paint,
      clarity,
      doses,
      deepestMm,
      by,
      hideLineMm: hideFrom,
      deep: linearFromHex(deep ?? even),
      halfwayMm: half * deepestMm,
      thicknessesMm: Array.from({ length: Number(count) }, () => each),
    };
  }, [paint, clarity, doses, deepestMm, by, deep, even, half, count, hideFrom]);
  const [solved, setSolved] = useState<{ wish: GradientWish; found: GradientFound } | null>(null);
  useEffect(() => {
    if (doses.length > 0) void solvePoursInWorker(lane, wish).then((found) => found && setSolved({ wish, found }));
  }, [wish, doses.length]);
  const length = (mm: number): string => formatMeasure(mm, 'length', units);
  if (doses.length === 0)
    return (
      <p className={styles.teach}>
        {recipe.data.name} is clear: there is nothing to thin. Add a colourant under Recipe, and come back.
      </p>
    );
  const found = solved?.found ?? null;
  const now = pours.length > 0 ? pours : [EVEN_POUR];
  const water = (own: readonly TintPour[]) => overPaint(paint, { clarity, doses, pours: own }, deepestMm);
  const bands = [
    { name: 'As wished', at: wishedByDepth(wish) },
    ...(found ? [{ name: `Nearest in ${found.pours.length} pours`, at: water(found.pours) }] : []),
    { name: pours.length > 0 ? 'As the recipe has it now' : 'As the recipe has it now: even', at: water(now) },
  ];
  const line = hasPaintedLine(paint);
  return (
    <div className={styles.view}>
      <section aria-label="Darker with depth" className={styles.picture}>
        <h2 className={styles.heading}>{recipe.data.name}, from the shore to the deep</h2>
        <BandsPicture bands={bands} deepestMm={deepestMm} halfwayMm={half * deepestMm} />
        <HalfwaySlider share={half} deepestMm={deepestMm} onShare={setHalf} />
        <PoursPicture pours={found?.pours ?? now} tint={{ clarity, doses }} deepestMm={deepestMm} />
      </section>
      <section aria-label="Wish" className={styles.wish}>
        <h2 className={styles.heading}>As you wish it</h2>
        <div className={styles.fields}>
          <ColourField
            label="At the deepest"
            value={deep ?? even}
            hint={deep === null ? 'as the recipe makes it now' : undefined}
            onCommit={setDeep}
          />
          {deep !== null && (
            <Button size="small" variant="text" onClick={() => setDeep(null)}>
              As the recipe makes it
            </Button>
          )}
          <Toggles
            label="Pours"
            shown
            value={count}
            choices={COUNTS.map((value) => ({ value, label: value }))}
            onChoose={setCount}
          />
          <Toggles label="Each pour" shown value={by} choices={WAYS} onChoose={setBy} />
          {line && (
            <>
              <Tick
                label="Hide the painted line"
                checked={hideFrom !== null}
                onChange={(wanted) => setHideFrom(wanted ? Math.round(deepestMm * 5) / 10 : null)}
              />
              {hideFrom !== null && (
                <MeasureField
                  label="From a depth of"
                  quantity="length"
                  value={hideFrom}
                  step={0.5}
                  validate={(mm) => (mm > 0 && mm <= deepestMm ? null : `Between 0 and ${length(deepestMm)}`)}
                  onCommit={setHideFrom}
                />
              )}
            </>
          )}
        </div>
        <div aria-live="polite" aria-busy={solved?.wish !== wish} className={styles.answer}>
          {!found && <Held label="Trying the pours" />}
          {found && (
            <>
              <p>
                <b>{differenceWords(found.meanDeltaE)}</b>
                {` on the average; at its worst ΔE ${found.worstDeltaE.toFixed(1)}, ${length(found.worstAtMm)} deep.`}
                {` As it is now: ΔE ${distance(wish, now).meanDeltaE.toFixed(1)} on the average.`}
              </p>
              {line && (
                <p className={styles.small}>
                  {`A hard line between the shore’s and the deep’s paint ${hiddenWords(lineHiddenFromMm(paint, { clarity, doses, pours: found.pours }), length)}; as it is now it ${hiddenWords(lineHiddenFromMm(paint, { clarity, doses, pours: now }), length)}.`}
                </p>
              )}
              <Button
                variant="contained"
                disabled={solved?.wish !== wish}
                onClick={() => put(() => rounded(found.pours), `Pour ${recipe.data.name} in ${found.pours.length}`)}
              >
                Pour it so
              </Button>
              <p className={styles.small}>
                An estimate, as the colours are. The layers of a batch are split where its pours change.
              </p>
            </>
          )}
        </div>
      </section>
      <section aria-label="Pours" className={styles.table}>
        <h2 className={styles.heading}>The pours as they are</h2>
        <PourTable recipe={recipe} />
      </section>
    </div>
  );
}

const hiddenWords = (mm: number | null, length: (mm: number) => string): string =>
  mm === null ? 'shows at any depth' : `is hidden from ${length(mm)} down`;

/** To what is typed and weighed: a tenth of a millimetre, a hundredth of the strength, a milligram. */
const rounded = (pours: readonly TintPour[]): TintPour[] =>
  pours.map(({ thicknessMm, strength, own }) => ({
    thicknessMm: thicknessMm === null ? null : Math.round(thicknessMm * 10) / 10,
    strength: Math.round(strength * 100) / 100,
    ...(own && {
      own: Object.fromEntries(Object.entries(own).map(([id, grams]) => [id, Math.round(grams * 1000) / 1000])),
    }),
  }));
