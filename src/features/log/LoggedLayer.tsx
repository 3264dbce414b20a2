'use client';

import Button from '@mui/material/Button';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableContainer from '@mui/material/TableContainer';
import TableFooter from '@mui/material/TableFooter';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { shortTime } from '@/core/time/dayNames';
import type { LayerPlan, PlanRequest } from '@/core/plan';
import { compareLayer } from '@/core/records/compare';
import type { PourRecord, WeighedCup } from '@/core/records/recordSchemas';
import { dryPours } from '@/core/records/rest';
import { formatMeasure } from '@/core/units/formatMeasure';
import { useUnits } from '@/ui/measure/UnitsContext';
import { pourWords } from '../desk/summarise';
import { RatioMark } from './RatioMark';
import styles from './LogStage.module.css';

interface LoggedLayerProps {
  layer: LayerPlan;
  pour: PourRecord;
  request: PlanRequest;
  onCorrect: () => void;
  /** Says that it was not poured after all; of the last layer only. */
  onStrike: (() => void) | undefined;
}

/** One layer, planned against real: a bar for each cup, its ratio, and the notes. */
export function LoggedLayer({ layer, pour, request, onCorrect, onStrike }: LoggedLayerProps) {
  const units = useUnits();
  const grams = (value: number): string => formatMeasure(value, 'mass', units);
  const signed = (value: number): string => `${value > 0 ? '+' : ''}${grams(value)}`;
  const compared = compareLayer(layer, pour, request.product.parts);
  const { resinGrams, colours } = pour.tintLeft ?? layer.tintLeft;
  const tintLeftGrams = resinGrams + colours.reduce((sum, one) => sum + one.grams, 0);
  const dry = dryPours(layer, pour);
  const most = Math.max(...compared.cups.flatMap(({ plannedGrams, realGrams }) => [plannedGrams, realGrams]), 1);
  return (
    <section className={styles.layer} aria-label={`Layer ${layer.number}`} data-layer={layer.number}>
      <h3>
        Layer {layer.number}
        <span>
          {shortTime(pour.pouredAt)} · {formatMeasure(pour.temperatureC, 'temperature', units)}
        </span>
        <Button variant="text" size="small" onClick={onCorrect}>
          Correct
        </Button>
        {onStrike && (
          <Button variant="text" size="small" onClick={onStrike}>
            Was not poured
          </Button>
        )}
      </h3>
      <TableContainer tabIndex={0} role="group" aria-label={`Cups of layer ${layer.number}`}>
        <Table size="small" className={styles.compare}>
          <TableHead>
            <TableRow>
              <TableCell>Cup</TableCell>
              <TableCell>Planned and real</TableCell>
              <TableCell align="right">Planned</TableCell>
              <TableCell align="right">Real</TableCell>
              <TableCell align="right">Differs</TableCell>
              <TableCell>Ratio</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {compared.cups.map((cup) => (
              <TableRow key={cup.number}>
                <TableCell component="th" scope="row">
                  {cup.number}
                </TableCell>
                <TableCell className={styles.barCell}>
                  <svg viewBox="0 0 100 14" preserveAspectRatio="none" className={styles.bar} aria-hidden>
                    <rect x="0" y="3" height="8" width={(cup.realGrams / most) * 98} className={styles.real} />
                    <path d={`M${(cup.plannedGrams / most) * 98} 0V14`} className={styles.planned} />
                  </svg>
                  <small>
                    <InTheCup cup={pour.cups.find(({ number }) => number === cup.number)} layer={layer} grams={grams} />
                    {cup.note && <em> {cup.note}</em>}
                  </small>
                </TableCell>
                <TableCell align="right">{cup.plannedGrams > 0 ? grams(cup.plannedGrams) : 'not planned'}</TableCell>
                <TableCell align="right">
                  <b>{grams(cup.realGrams)}</b>
                </TableCell>
                <TableCell align="right">{signed(cup.differenceGrams)}</TableCell>
                <TableCell>{cup.ratio ? <RatioMark reading={cup.ratio} units={units} /> : 'one part'}</TableCell>
              </TableRow>
            ))}
          </TableBody>
          <TableFooter>
            <TableRow>
              <TableCell component="th" scope="row" colSpan={2}>
                All cups
              </TableCell>
              <TableCell align="right">{grams(compared.plannedGrams)}</TableCell>
              <TableCell align="right">
                <b>{grams(compared.realGrams)}</b>
              </TableCell>
              <TableCell align="right">{signed(compared.differenceGrams)}</TableCell>
              <TableCell />
            </TableRow>
          </TableFooter>
        </Table>
      </TableContainer>
      {tintLeftGrams > 0.05 && (
        <p className={styles.note}>{`Left of the stock tint and premixes: ${grams(tintLeftGrams)}.`}</p>
      )}
      {dry.length > 0 && (
        <p className={styles.note}>
          Still dry: <b>{pourWords(dry)}</b>
        </p>
      )}
      {pour.note && <p className={styles.note}>{pour.note}</p>}
    </section>
  );
}

/** Where a cup went: the pieces as they were poured, and what was lost, where a run has read it; else the pieces as planned. */
function InTheCup({
  cup,
  layer,
  grams,
}: {
  cup: WeighedCup | undefined;
  layer: LayerPlan;
  grams: (value: number) => string;
}) {
  if (cup?.pouredGrams === undefined)
    return <>{pourWords(layer.cups.find(({ number }) => number === cup?.number)?.pours ?? [])}</>;
  const colour = (cup.doses ?? []).reduce((sum, dose) => sum + dose.grams, 0);
  const weighed = cup.partAGrams + (cup.partBGrams ?? 0) + colour;
  const pieces = (cup.pieces ?? []).map(
    ({ tag, copy, grams: own }) => `${tag}${copy > 0 ? ` #${copy}` : ''} ${grams(own)}`,
  );
  const rest = weighed - cup.pouredGrams;
  return (
    <>
      {[...pieces, rest > 0.05 ? `${cup.discarded ? 'thrown away' : 'lost'} ${grams(rest)}` : '']
        .filter(Boolean)
        .join(', ')}
    </>
  );
}
