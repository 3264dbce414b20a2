'use client';

import Button from '@mui/material/Button';
import { useState } from 'react';
import type { MatchRow, MatchSeam, MatchSet } from '@/core/seams/matchSet';
import type { RowPlace, RowRules } from '@/core/seams/row';
import { rowEnds } from '@/core/formats/matchFile';
import { shimRow } from '@/core/seams/shims';
import { formatMeasure } from '@/core/units/formatMeasure';
import { GradeMark } from '@/ui/mark/GradeMark';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { WordField } from '@/ui/measure/WordField';
import { parseMeasure } from '@/core/units/parseMeasure';
import { preferredUnit } from '@/core/units/formatMeasure';
import { useDesk } from '../desk/DeskContext';
import styles from './MatchStage.module.css';

interface RowOfBoardsProps {
  match: MatchSet | null;
  rules: RowRules;
  onRules: (rules: RowRules) => void;
  onSeam: (seam: MatchSeam) => void;
}

const boardName = ({ boards }: MatchRow, board: number): string => `${boards[board]!.tag} #${boards[board]!.copy}`;

/** The set's boards side by side: the best order, which way round, the seams between them, and the shims that close what is left. */
export function RowOfBoards({ match, rules, onRules, onSeam }: RowOfBoardsProps) {
  const { desk, door } = useDesk();
  const units = useUnits();
  const row = match?.row;
  const table = desk.set.data.tableMm;
  const putSet = (change: object, label: string): void => void door.run(({ set }) => ({ do: 'put', kind: 'set', id: set.id, version: set.version, data: { ...set.data, ...change }, label }), label);
  if (!row) {
    return match && match.problems.length > 0 ? (
      <section aria-label="Row of boards">
        <h2 className={styles.heading}>Row of boards</h2>
        {match.problems.map((problem) => (
          <p key={problem} role="alert">
            {problem}
          </p>
        ))}
        <Button size="small" onClick={() => onRules({})}>
          Take out all pins
        </Button>
      </section>
    ) : null;
  }
  const { places, exact, bound, passing, all } = row.result;
  const pinned = (board: number): boolean => rules.pins?.some((pin) => pin.board === board) ?? false;
  const pin = (board: number, place: number): void => onRules({ ...rules, pins: pinned(board) ? rules.pins!.filter((other) => other.board !== board) : [...(rules.pins ?? []), { board, place }] });
  return (
    <section aria-label="Row of boards">
      <h2 className={styles.heading}>Row of boards</h2>
      <p className={styles.small}>
        {`${formatMeasure(row.lengthMm, 'length', units, 0)} in all${table ? `, on a table of ${formatMeasure(table, 'length', units, 0)}${row.lengthMm > table ? ': too long' : ''}` : ''}. `}
        {exact ? 'No order is better.' : `The best found; no order can have its worst seam below ${bound.toFixed(2)} of what closes.`}
        {passing !== null && all !== null && ` ${Math.round((100 * passing) / all)} % of all orders pass.`}
      </p>
      <ol className={styles.row}>
        {places.map((place, i) => (
          <li key={place.board}>
            {i > 0 && (
              <button type="button" className={styles.joint} onClick={() => onSeam(row.seams[i - 1]!)} title={row.seams[i - 1]!.reason}>
                <GradeMark grade={row.seams[i - 1]!.grade} />
                <span>{row.seams[i - 1]!.reason}</span>
              </button>
            )}
            <div className={styles.board}>
              <strong>{boardName(row, place.board)}</strong>
              {place.turned && <span>turned round</span>}
              <button type="button" aria-pressed={pinned(place.board)} onClick={() => pin(place.board, i)}>
                {pinned(place.board) ? 'unpin' : 'pin here'}
              </button>
            </div>
          </li>
        ))}
      </ol>
      {row.spoiler && <p className={styles.small}>{`${boardName(row, row.spoiler.board)} spoils most: without it ${row.spoiler.withoutWorst <= 1 ? 'every seam of the best row closes' : row.spoiler.withoutWorst <= 2 ? 'every seam of the best row passes' : 'the worst seam is better'}.`}</p>}
      <Shims match={match} row={row} places={places} />
      <MeasureField label="The table is long" quantity="length" step={50} value={table ?? 0} hint={table ? undefined : 'not stated'} validate={(value) => (value < 0 || value > 20_000 ? 'Between 0 and 20 m' : null)} onCommit={(value) => putSet({ tableMm: value === 0 ? undefined : value }, 'Change the table')} />
    </section>
  );
}

function Shims({ match, row, places }: { match: MatchSet; row: MatchRow; places: readonly RowPlace[] }) {
  const { desk, door } = useDesk();
  const units = useUnits();
  const [complaint, setComplaint] = useState<string | null>(null);
  const strips = desk.set.data.shimsMm ?? [];
  const plan = shimRow(places.map((_, i) => rowEnds(match.edges, row.seams, i)), strips);
  const mm = (value: number): string => formatMeasure(value, 'length', units);
  const save = (text: string): void => {
    const parsed = text.split(/[,;]\s*|\s{2,}/).filter((part) => part.trim() !== '').map((part) => parseMeasure(part, 'length', preferredUnit('length', units)));
    const bad = parsed.find((value) => !value.ok);
    if (bad && !bad.ok) return setComplaint(bad.message);
    setComplaint(null);
    void door.run(({ set }) => ({ do: 'put', kind: 'set', id: set.id, version: set.version, data: { ...set.data, shimsMm: parsed.map((value) => (value.ok ? value.value : 0)) }, label: 'Change the shim strips' }), 'Shim strips changed');
  };
  return (
    <div className={styles.shims}>
      <WordField label={`Shim strips at hand, ${units.length}, with commas`} value={strips.map((strip) => (units.length === 'mm' ? String(strip) : mm(strip))).join(', ')} validate={() => complaint} onCommit={save} />
      {plan.beforeMm > 0.05 && strips.length > 0 && (
        <p>
          {plan.worstMm < plan.beforeMm - 0.01
            ? `${plan.shims.flatMap(({ raiseMm }, i) => (raiseMm > 0 ? [`${mm(raiseMm)} under ${boardName(row, places[i]!.board)}`] : [])).join(', ')}: the worst step falls from ${mm(plan.beforeMm)} to ${mm(plan.worstMm)}.`
            : `No shim helps: the worst step stays ${mm(plan.beforeMm)}.`}
        </p>
      )}
    </div>
  );
}
