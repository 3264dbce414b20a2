'use client';

import Button from '@mui/material/Button';
import { shortTime } from '@/core/cure/dayNames';
import type { LayerPlan, PlanRequest } from '@/core/plan';
import { compareLayer } from '@/core/records/compare';
import type { PourRecord } from '@/core/records/schema';
import { formatMeasure } from '@/core/units/formatMeasure';
import { useUnits } from '@/ui/measure/UnitsContext';
import { copyNames, groupPours } from '../pour/summarise';
import { RatioMark } from './RatioMark';
import styles from './LogStage.module.css';

interface LoggedLayerProps {
  layer: LayerPlan;
  pour: PourRecord;
  request: PlanRequest;
  onCorrect: () => void;
}

/** One layer, planned against real: a bar for each cup, its ratio, and the notes. */
export function LoggedLayer({ layer, pour, request, onCorrect }: LoggedLayerProps) {
  const units = useUnits();
  const grams = (value: number): string => formatMeasure(value, 'mass', units);
  const signed = (value: number): string => `${value > 0 ? '+' : ''}${grams(value)}`;
  const compared = compareLayer(layer, pour, request.product.parts);
  const most = Math.max(...compared.cups.flatMap(({ plannedGrams, realGrams }) => [plannedGrams, realGrams]), 1);
  return (
    <section className={styles.layer} aria-label={`Layer ${layer.number}`}>
      <h3>
        Layer {layer.number}
        <span>
          {shortTime(pour.pouredAt)} · {formatMeasure(pour.temperatureC, 'temperature', units)}
        </span>
        <Button variant="text" size="small" onClick={onCorrect}>
          Correct
        </Button>
      </h3>
      <div className={styles.scroll} tabIndex={0} role="group" aria-label={`Cups of layer ${layer.number}`}>
        <table className={styles.compare}>
          <thead>
            <tr>
              <th scope="col">Cup</th>
              <th scope="col">Planned and real</th>
              <th scope="col" className={styles.number}>
                Planned
              </th>
              <th scope="col" className={styles.number}>
                Real
              </th>
              <th scope="col" className={styles.number}>
                Differs
              </th>
              <th scope="col">Ratio</th>
            </tr>
          </thead>
          <tbody>
            {compared.cups.map((cup) => (
              <tr key={cup.number}>
                <th scope="row">{cup.number}</th>
                <td className={styles.barCell}>
                  <svg viewBox="0 0 100 14" preserveAspectRatio="none" className={styles.bar} aria-hidden>
                    <rect x="0" y="3" height="8" width={(cup.realGrams / most) * 98} className={styles.real} />
                    <path d={`M${(cup.plannedGrams / most) * 98} 0V14`} className={styles.planned} />
                  </svg>
                  <small>
                    {groupPours(layer.cups.find(({ number }) => number === cup.number)?.pours ?? [])
                      .map(({ tag, copies }) => `${tag} ${copyNames(copies)}`)
                      .join(', ')}
                    {cup.note && <em> {cup.note}</em>}
                  </small>
                </td>
                <td className={styles.number}>{grams(cup.plannedGrams)}</td>
                <td className={styles.number}>
                  <b>{grams(cup.realGrams)}</b>
                </td>
                <td className={styles.number}>{signed(cup.differenceGrams)}</td>
                <td>{cup.ratio ? <RatioMark reading={cup.ratio} units={units} past /> : 'one part'}</td>
              </tr>
            ))}
          </tbody>
          <tfoot>
            <tr>
              <th scope="row" colSpan={2}>
                All cups
              </th>
              <td className={styles.number}>{grams(compared.plannedGrams)}</td>
              <td className={styles.number}>
                <b>{grams(compared.realGrams)}</b>
              </td>
              <td className={styles.number}>{signed(compared.differenceGrams)}</td>
              <td />
            </tr>
          </tfoot>
        </table>
      </div>
      {pour.note && <p className={styles.note}>{pour.note}</p>}
    </section>
  );
}
