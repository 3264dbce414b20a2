'use client';

import Button from '@mui/material/Button';
import { lazy, Suspense, useDeferredValue, useState } from 'react';
import { shortTime } from '@/core/time/dayNames';
import { requestOfLayer, type CupPlan, type LayerPlan, type Plan, type PlanRequest } from '@/core/plan';
import type { Batch } from '@/core/records/recordSchemas';
import type { BatchRow } from '@/core/records/views';
import { cupColour } from '@/core/tint/waterLook';
import { pourDoses } from '@/core/tint/waterTint';
import { formatMeasure } from '@/core/units/formatMeasure';
import { useDesk } from '../desk/DeskContext';
import { CupPicture } from './CupPicture';
import { PLANTS_FIRST, tintWords } from './layerWords';
import { whyThisSplit } from './whyThisSplit';
import styles from './PourStage.module.css';

const Arrange = lazy(async () => ({ default: (await import('./ArrangeCups')).ArrangeCups }));

/** More cups than these are shown when they are asked for. */
const FIRST_CUPS = 24;

interface LayerCupsProps {
  batch: BatchRow;
  layer: LayerPlan;
  plan: Plan;
  request: PlanRequest;
}

/** Where every piece of a layer is now, with one of them moved: what is kept is the whole of it, so that no later split shifts the rest. */
function movesWith(layer: LayerPlan, pour: CupPlan['pours'][number], cup: number): NonNullable<Batch['moves']> {
  return layer.cups.flatMap(({ number, pours }) =>
    pours.map(({ designId, copy }) => ({
      layer: layer.number,
      designId,
      copy,
      cup: designId === pour.designId && copy === pour.copy ? cup : number,
    })),
  );
}

/** The cups of one layer as they are mixed, or with every piece loose to be moved to another. */
export function LayerCups({ batch, layer, plan, request: whole }: LayerCupsProps) {
  const request = requestOfLayer(whole, layer);
  const colour = cupColour({
    clarity: request.product.clarity ?? 'water-clear',
    doses: pourDoses(request.recipe.doses, { strength: layer.strength ?? 1, ...(layer.own && { own: layer.own }) }),
  });
  const { desk, edits } = useDesk();
  const { units, measureBy } = desk.shelf.settings.data;
  const filled = useDeferredValue(true, false);
  const [arranging, setArranging] = useState(false);
  const [all, setAll] = useState(layer.cups.length <= FIRST_CUPS);
  const filler = fillerOf(layer, batch.data.own?.fillerId);
  const moved = batch.data.moves?.some((move) => move.layer === layer.number) ?? false;
  const change = (make: (moves: NonNullable<Batch['moves']>) => NonNullable<Batch['moves']>, label: string): void =>
    void edits.run(({ batches }) => {
      const stored = batches.find(({ id }) => id === batch.id) ?? batch;
      const { moves = [], ...data } = stored.data;
      const next = make(moves);
      return {
        do: 'put',
        kind: 'batch',
        id: batch.id,
        version: stored.version,
        label,
        data: next.length > 0 ? { ...data, moves: next } : data,
      };
    }, label);
  const others = (moves: NonNullable<Batch['moves']>): NonNullable<Batch['moves']> =>
    moves.filter((move) => move.layer !== layer.number);
  return (
    <div className={styles.layer}>
      <h3>
        Layer {layer.number} of {plan.layers.length}
        {layer.productId !== undefined && `, ${request.product.name.toLowerCase()}`}
        {tintWords(layer)}
        <span>
          up to {formatMeasure(layer.toMm, 'length', units)} · {layer.cure.poured ? 'poured' : 'pour'}{' '}
          {shortTime(layer.cure.pouredAt)}
        </span>
      </h3>
      {(layer.plantsBefore || (layer.number === 1 && plan.plantsFirst)) && (
        <p className={styles.plants}>{PLANTS_FIRST}</p>
      )}
      {arranging ? (
        <Suspense fallback={null}>
          <Arrange
            layer={layer}
            mostGrams={layer.mostMix.grams}
            onMove={(pour, cup) =>
              change(
                (moves) => [...others(moves), ...movesWith(layer, pour, cup)],
                `Move ${pour.tag} #${pour.copy} to another cup`,
              )
            }
          />
        </Suspense>
      ) : (
        <div className={styles.row}>
          {(all ? layer.cups : layer.cups.slice(0, FIRST_CUPS)).map((cup) => (
            <CupPicture
              key={cup.number}
              cup={cup}
              request={request}
              by={measureBy}
              filler={filler}
              told={filled}
              fullGrams={Math.max(request.bench.cupGrams, cup.mixGrams)}
              colour={colour}
            />
          ))}
          {!all && (
            <Button size="small" onClick={() => setAll(true)}>
              {`Show all ${layer.cups.length} cups`}
            </Button>
          )}
        </div>
      )}
      {filled && !batch.poured && layer.cups.length > 0 && (
        <p className={styles.why}>
          {whyThisSplit(layer, request, units)}{' '}
          <Button size="small" variant="text" onClick={() => setArranging(!arranging)}>
            {arranging ? 'Show the cups as they are mixed' : 'Move pieces between cups'}
          </Button>
          {moved && (
            <Button size="small" variant="text" onClick={() => change(others, `Share out layer ${layer.number} again`)}>
              Share them out again
            </Button>
          )}
        </p>
      )}
    </div>
  );
}

/** What a leftover may still fill: a piece of the maker's choosing, else the one that takes least. */
function fillerOf({ cups }: LayerPlan, designId: string | undefined): { tag: string; grams: number } | null {
  const all = cups.flatMap(({ pours }) => pours);
  const wanted = all.find((pour) => pour.designId === designId);
  return (
    wanted ??
    all.reduce<(typeof all)[number] | null>((least, pour) => (least && least.grams <= pour.grams ? least : pour), null)
  );
}
