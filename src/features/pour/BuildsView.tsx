'use client';

import Button from '@mui/material/Button';
import Link from 'next/link';
import { useEffect, useState } from 'react';
import {
  buildFigures,
  productOfBuild,
  requestOfBuild,
  WATER_BUILDS,
  type BuildFigures,
  type BuildOnOffer,
} from '@/core/plan/builds';
import { gradientPours } from '@/core/tint/waterTint';
import { formatMeasure, formatMinutes, formatMoney } from '@/core/units/formatMeasure';
import { useUnits } from '@/ui/measure/UnitsContext';
import { planInWorker } from '@/workers/planner';
import { useDesk, useDeskPlan } from '../desk/DeskContext';
import { BuildEditor } from './BuildEditor';
import styles from './BuildsView.module.css';

const lane = Symbol('water builds');

/** The schools of making water, side by side for this set: grams, cost, time, risk, look. Choosing one makes it the set's. */
export function BuildsView() {
  const { desk, edits, changeSet, tintRecipe } = useDesk();
  const { request, plan } = useDeskPlan();
  const units = useUnits();
  const [done, setDone] = useState<{ of: object; figures: Map<string, BuildFigures> } | null>(null);
  const { products } = desk.shelf;
  const deepestMm = Math.max(1, ...(plan?.pieces.map(({ water }) => water.greatestDepthMm) ?? []));
  useEffect(() => {
    if (!request) return;
    let stale = false;
    const work = async (): Promise<void> => {
      const figures = new Map<string, BuildFigures>();
      for (const build of WATER_BUILDS) {
        const product = productOfBuild(build, products);
        if (!product) continue;
        const own = requestOfBuild(request, build, product, deepestMm);
        const amounts = await planInWorker(lane, own);
        if (stale) return;
        if (amounts) figures.set(build.key, buildFigures(build, own, amounts));
        setDone({ of: request, figures: new Map(figures) });
      }
    };
    void work().catch(reportError);
    return () => {
      stale = true;
    };
  }, [request, products, deepestMm]);
  if (!request)
    return <p className={styles.teach}>Add pieces on the Shape stage first: the schools are worked out for them.</p>;
  const figures = done?.of === request ? done.figures : new Map<string, BuildFigures>();
  const all = [...figures.values()];
  const most = {
    grams: Math.max(...all.map(({ grams }) => grams), 1),
    cost: Math.max(...all.map(({ cost }) => cost), 0.01),
  };
  const graded = (request.recipe.pours?.length ?? 0) > 1;
  const tinted = request.recipe.doses.some(({ gramsPer100 }) => gramsPer100 > 0);
  const isChosen = ({ kindId, tint, filmMm }: BuildOnOffer): boolean =>
    filmMm === null &&
    !desk.set.data.build?.coats.length &&
    desk.set.data.productId === kindId &&
    (tint === 'graded' ? graded : tint === 'none' ? !tinted : tinted && !graded);

  const choose = async (build: BuildOnOffer): Promise<void> => {
    if (!products.some(({ id }) => id === build.kindId)) {
      const outcome = await edits.run(() => ({ do: 'stock', productIds: [build.kindId] }), 'Put on the shelf');
      if (!outcome.ok) return;
    }
    changeSet(
      ({ build: _, ...set }) => ({ ...set, productId: build.kindId }),
      `Build the water as ${build.name.toLowerCase()}`,
    );
    const recipe = desk.shelf.recipes.find(({ id }) => id === desk.set.data.recipeId);
    if (!recipe || build.tint === 'none') return;
    if (build.tint === 'graded' && !graded)
      tintRecipe(
        recipe.id,
        (data) => ({ ...data, pours: gradientPours(Math.round(deepestMm * 10) / 10, 2) }),
        `Pour ${recipe.data.name} lighter towards the top`,
      );
    if (build.tint === 'recipe' && graded)
      tintRecipe(recipe.id, ({ pours: _, ...data }) => data, `Pour ${recipe.data.name} the same all through`);
  };
  return (
    <section aria-label="Water builds">
      <h2 className={styles.heading}>Ways to build the water</h2>
      <p className={styles.teach}>
        <Link href={`/sets/${desk.set.id}/pour`}>Batches</Link> The same pieces, the ways water is made. Figures are of
        this set; typical products stand in where you have none of a kind.
      </p>
      <BuildEditor request={request} deepestMm={deepestMm} />
      <h2 className={styles.heading}>The known schools, for this set</h2>
      <ul className={styles.builds}>
        {WATER_BUILDS.map((build) => {
          const own = figures.get(build.key);
          const chosen = isChosen(build);
          return (
            <li key={build.key} className={styles.build} aria-label={build.name} data-chosen={chosen || undefined}>
              <h3>{build.name}</h3>
              <div
                className={styles.look}
                aria-hidden
                style={own ? { background: `linear-gradient(90deg, ${own.colours.join(', ')})` } : undefined}
              />
              {own ? (
                <dl>
                  <Figure
                    label="to mix"
                    digits={formatMeasure(own.grams, 'mass', units, 0)}
                    share={own.grams / most.grams}
                  />
                  <Figure label="cost" digits={formatMoney(own.cost, units)} share={own.cost / most.cost} />
                  <Figure label={own.layers === 1 ? 'layer' : 'layers'} digits={String(own.layers)} />
                  <Figure label="at the bench" digits={formatMinutes(own.handsOnMinutes)} />
                  <Figure label="waiting" digits={formatMinutes(own.waitMinutes)} />
                </dl>
              ) : (
                <p role="status">Working it out…</p>
              )}
              <p>{build.look}</p>
              <p className={styles.risk}>{build.risk}</p>
              {own?.stops.slice(0, 1).map((stop) => (
                <p key={stop} className={styles.stop}>
                  {stop}
                </p>
              ))}
              {build.filmMm === null ? (
                chosen ? (
                  <b className={styles.own}>The set’s build</b>
                ) : (
                  <Button size="small" onClick={() => void choose(build)}>
                    Build it so
                  </Button>
                )
              ) : (
                <p className={styles.risk}>Raise the beds to this depth on the Shape stage, then pour it clear.</p>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

function Figure({ label, digits, share }: { label: string; digits: string; share?: number }) {
  return (
    <div>
      <dt>{label}</dt>
      <dd>
        {digits}
        {share !== undefined && <span style={{ width: `${Math.max(2, share * 100)}%` }} />}
      </dd>
    </div>
  );
}
