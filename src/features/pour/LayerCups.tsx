'use client';

import Button from '@mui/material/Button';
import { useState } from 'react';
import { shortTime } from '@/core/cure/dayNames';
import type { CupPlan, LayerPlan, Plan, PlanRequest } from '@/core/plan';
import type { Batch } from '@/core/records/schema';
import type { BatchRow } from '@/core/records/views';
import { formatMeasure } from '@/core/units/formatMeasure';
import { later } from '@/ui/later';
import { useAwake } from '@/ui/useAwake';
import { useDesk } from '../desk/DeskContext';
import { CupPicture } from './CupPicture';
import { strengthWords } from './doseWords';
import { whyThisSplit } from './whyThisSplit';
import styles from './PourStage.module.css';

const Arrange = later(async () => (await import('./ArrangeCups')).ArrangeCups);

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
      ...{ layer: layer.number, designId, copy },
      cup: designId === pour.designId && copy === pour.copy ? cup : number,
    })),
  );
}

/** The cups of one layer as they are mixed, or with every piece loose to be moved to another. */
export function LayerCups({ batch, layer, plan, request }: LayerCupsProps) {
  const { desk, door } = useDesk();
  const { units, measureBy } = desk.shelf.settings.data;
  const awake = useAwake();
  const [arranging, setArranging] = useState(false);
  const filler = smallestPour(layer);
  const moved = batch.data.moves?.some((move) => move.layer === layer.number) ?? false;
  const change = (make: (moves: NonNullable<Batch['moves']>) => NonNullable<Batch['moves']>, label: string): void =>
    void door.run(({ batches }) => {
      const stored = batches.find(({ id }) => id === batch.id) ?? batch;
      const { moves = [], ...data } = stored.data;
      const next = make(moves);
      return {
        ...{ do: 'put', kind: 'batch', id: batch.id, version: stored.version, label },
        data: next.length > 0 ? { ...data, moves: next } : data,
      };
    }, label);
  const others = (moves: NonNullable<Batch['moves']>): NonNullable<Batch['moves']> =>
    moves.filter((move) => move.layer !== layer.number);
  return (
    <div className={styles.layer}>
      <h3>
        Layer {layer.number} of {plan.layers.length}
        {strengthWords(layer.strength)}
        <span>
          up to {formatMeasure(layer.toMm, 'length', units)} · {layer.cure.poured ? 'poured' : 'pour'}{' '}
          {shortTime(layer.cure.pouredAt)}
        </span>
      </h3>
      {arranging ? (
        <Arrange.Part
          layer={layer}
          mostGrams={plan.mix.mostGrams}
          onMove={(pour, cup) =>
            change(
              (moves) => [...others(moves), ...movesWith(layer, pour, cup)],
              `Move ${pour.tag} #${pour.copy} to another cup`,
            )
          }
        />
      ) : (
        <div className={styles.row}>
          {layer.cups.map((cup) => (
            <CupPicture
              key={cup.number}
              cup={cup}
              request={request}
              by={measureBy}
              filler={filler}
              told={awake}
              fullGrams={Math.max(request.bench.cupGrams, cup.mixGrams)}
              colour={plan.pieces[0]?.colour.deepest ?? '#2f6450'}
            />
          ))}
        </div>
      )}
      {awake && !batch.poured && layer.cups.length > 0 && (
        <p className={styles.why}>
          {whyThisSplit(layer, plan, request, units)}{' '}
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

/** The piece that takes least: what a leftover may still fill. */
function smallestPour({ cups }: LayerPlan): { tag: string; grams: number } | null {
  const all = cups.flatMap(({ pours }) => pours);
  return all.length === 0 ? null : all.reduce((least, pour) => (pour.grams < least.grams ? pour : least));
}
