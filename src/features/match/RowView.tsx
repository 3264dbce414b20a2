'use client';

import Button from '@mui/material/Button';
import { useMemo, useState } from 'react';
import { pieceKey, samePiece, type PieceRef } from '@/core/model/pieceRef';
import type { MatchRow } from '@/core/seams/matchRow';
import type { MatchSet } from '@/core/seams/matchSet';
import type { StandingJoint } from '@/core/seams/waysToClose';
import { NO_WISH, type RowWish } from '@/core/model/seamSchema';
import { boardCut } from '@/core/seams/walk';
import { formatMeasure } from '@/core/units/formatMeasure';
import { MenuButton } from '@/ui/controls/MenuButton';
import { GradeMark } from '@/ui/mark/GradeMark';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { WaterlineWalk, type WalkPiece } from '@/ui/waterline/WaterlineWalk';
import { useDesk } from '../desk/DeskContext';
import { pictureBed } from '../desk/pictures';
import { RowShims } from './RowShims';
import { SeamPanel } from './SeamPanel';
import { seamWords, walkJoint } from './seamWords';
import { useRowWish } from './useRowWish';
import type { Matching } from './useMatch';
import styles from './MatchStage.module.css';
import own from './RowView.module.css';

/** The set's boards side by side: a walk along the best row, the rules it keeps to, the shims that close what is left. */
export function RowView({ matching: { match, request } }: { matching: Matching }) {
  const [at, setAt] = useState(0);
  const { wish, put } = useRowWish();
  const row = match?.row ?? null;
  const joints = useMemo<StandingJoint[]>(
    () => row?.seams.map(({ a, b }, i) => ({ a, b, placeA: i, placeB: i + 1 })) ?? [],
    [row],
  );
  if (!match) return <p className={styles.teach}>Matching the boards…</p>;
  if (!row) return <NoRow match={match} wish={wish} onClear={() => put(NO_WISH, 'Take out all rules of the row')} />;
  const here = Math.min(at, row.seams.length - 1);
  const seam = row.seams[here]!;
  const boards = row.result.places.map(({ board }) => row.boards[board]!);
  return (
    <>
      <Walk match={match} row={row} request={request} at={here} onAt={setAt} />
      <div className={own.columns}>
        <Order match={match} row={row} at={here} onAt={setAt} wish={wish} put={put} />
        <section aria-label="The seam" className={styles.middle}>
          <SeamPanel
            match={match}
            seam={seam}
            limits={request.limits}
            joints={joints}
            copies={[boards[here]!.copy, boards[here + 1]!.copy]}
          />
        </section>
        <RowShims row={row} />
      </div>
    </>
  );
}

function NoRow({ match, wish, onClear }: { match: MatchSet; wish: RowWish; onClear: () => void }) {
  if (match.problems.length === 0)
    return (
      <p className={styles.teach}>
        A row takes two boards or more, each with a west and an east end. Give a board more copies on the Shape stage,
        or add another.
      </p>
    );
  return (
    <section aria-label="Row of boards">
      {match.problems.map((problem) => (
        <p key={problem} role="alert" className={styles.problem}>
          {problem}
        </p>
      ))}
      {(wish.pins.length > 0 || wish.apart.length > 0) && (
        <Button size="small" onClick={onClear}>
          Take out all pins and rules
        </Button>
      )}
    </section>
  );
}

interface WalkProps {
  match: MatchSet;
  row: MatchRow;
  request: Matching['request'];
  at: number;
  onAt: (joint: number) => void;
}

function Walk({ match, row, request, at, onAt }: WalkProps) {
  const units = useUnits();
  const pieces = useMemo(
    () =>
      row.result.places.map(({ board, turned }): WalkPiece => {
        const { name, west, east } = row.boards[board]!;
        const [left, right] = (turned ? [east, west] : [west, east]).map((index) => match.edges[index]!) as [
          MatchSet['edges'][number],
          MatchSet['edges'][number],
        ];
        const piece = request.pieces.find((candidate) => samePiece(candidate, left));
        const design = piece?.design;
        const [southWest, southEast, northEast, northWest] = piece?.shimsMm ?? [0, 0, 0, 0];
        const [westLift, eastLift] = [(southWest + northWest) / 2, (southEast + northEast) / 2];
        return {
          key: name,
          name: turned ? `${name}, turned` : name,
          look: left.look,
          landColour: design?.landColour ?? '#999999',
          rockColour: design?.rockColour,
          cut: design
            ? boardCut(pictureBed(design, false).grid, design.outline, request.levelMm, turned)
            : {
                lengthMm: row.boards[board]!.lengthMm,
                stepMm: row.boards[board]!.lengthMm,
                heightMm: new Float32Array(2),
              },
          liftMm: turned ? [eastLift, westLift] : [westLift, eastLift],
          levelMm: [left.levelMm[1], right.levelMm[1]],
        };
      }),
    [match, row, request],
  );
  return (
    <WaterlineWalk
      label="The row of boards at eye level"
      pieces={pieces}
      joints={row.seams.map((seam) => walkJoint(match, seam, units))}
      levelMm={request.levelMm}
      at={at}
      onAt={onAt}
    />
  );
}

interface OrderProps {
  match: MatchSet;
  row: MatchRow;
  at: number;
  onAt: (joint: number) => void;
  wish: RowWish;
  put: (wish: RowWish, label: string) => void;
}

/** The order of the boards, with what pins them, what keeps them apart, and which one spoils most. */
function Order({ match, row, at, onAt, wish, put }: OrderProps) {
  const { desk, changeSet } = useDesk();
  const units = useUnits();
  const table = desk.set.data.tableMm;
  const mm = (value: number, decimals?: number): string => formatMeasure(value, 'length', units, decimals);
  const { places, exact, bound, passing, all } = row.result;
  const name = (board: number): string => row.boards[board]!.name;
  const refOf = (board: number): PieceRef => row.boards[board]!;
  const pinned = (board: number): boolean => wish.pins.some(({ piece }) => samePiece(piece, refOf(board)));
  const pin = (board: number, place: number): void => {
    const { designId, copy } = refOf(board);
    put(
      {
        ...wish,
        pins: pinned(board)
          ? wish.pins.filter(({ piece }) => !samePiece(piece, refOf(board)))
          : [...wish.pins, { piece: { designId, copy }, place }],
      },
      pinned(board) ? `Unpin ${name(board)}` : `Pin ${name(board)} to place ${place + 1}`,
    );
  };
  return (
    <section aria-label="Row of boards" className={own.order}>
      <h2 className={styles.heading}>The best order</h2>
      <p className={styles.small}>
        {`${mm(row.lengthMm, 0)} in all${table ? `, on a table of ${mm(table, 0)}${row.lengthMm > table ? `: ${mm(row.lengthMm - table, 0)} too long` : ''}` : ''}. `}
        {exact
          ? 'No order is better.'
          : `The best found, not proved: no order can have its worst seam below ${bound.toFixed(2)} of what closes, this one has ${row.result.worst.toFixed(2)}.`}
        {passing !== null && all !== null && ` ${Math.round((100 * passing) / all)} % of all orders pass.`}
      </p>
      <ol className={styles.row}>
        {places.map((place, i) => (
          <li key={place.board}>
            {i > 0 && (
              <Button variant="text" className={styles.joint} aria-pressed={at === i - 1} onClick={() => onAt(i - 1)}>
                <GradeMark grade={row.seams[i - 1]!.grade} />
                <span>{seamWords(match, row.seams[i - 1]!, units)}</span>
              </Button>
            )}
            <div className={styles.board}>
              <strong>{name(place.board)}</strong>
              {place.turned && <span>turned round</span>}
              <Button
                size="small"
                variant="text"
                aria-pressed={pinned(place.board)}
                onClick={() => pin(place.board, i)}
              >
                {pinned(place.board)
                  ? 'unpin'
                  : i === 0
                    ? 'keep at the left end'
                    : i === places.length - 1
                      ? 'keep at the right end'
                      : 'pin here'}
              </Button>
            </div>
          </li>
        ))}
      </ol>
      {row.spoiler && <SpoilerWords row={row} mm={mm} />}
      <Apart row={row} wish={wish} put={put} />
      <MeasureField
        label="The table is long"
        quantity="length"
        step={50}
        value={table ?? 0}
        hint={table ? undefined : 'not stated'}
        validate={(value) => (value < 0 || value > 20_000 ? 'Between 0 and 20 m' : null)}
        onCommit={(value) =>
          changeSet((set) => ({ ...set, tableMm: value === 0 ? undefined : value }), 'Change the table')
        }
      />
    </section>
  );
}

function SpoilerWords({ row, mm }: { row: MatchRow; mm: (value: number) => string }) {
  const { board, spoils, others, lacks, raiseMm, spoilsThen, withoutWorst } = row.spoiler!;
  const verb = lacks === 'passing' ? 'pass' : 'close';
  const mend =
    raiseMm === null
      ? ' No height mends that: its bed is another.'
      : ` ${raiseMm > 0 ? 'Raised' : 'Lowered'} by ${mm(Math.abs(raiseMm))}, ${spoilsThen === 0 ? `it would ${verb} with all` : `it would still not ${verb} with ${spoilsThen}`}.`;
  return (
    <p className={styles.small}>
      <strong>{row.boards[board]!.name}</strong>
      {` spoils most: it does not ${verb} with ${spoils} of ${others}, whichever way round.${mend}`}
      {withoutWorst !== null &&
        ` Without it ${withoutWorst <= 1 ? 'every seam of the best row closes' : withoutWorst <= 2 ? 'every seam of the best row passes' : 'the worst seam still shows'}.`}
    </p>
  );
}

/** Pairs of boards that may not be neighbours. */
function Apart({ row, wish, put }: { row: MatchRow; wish: RowWish; put: (wish: RowWish, label: string) => void }) {
  const [first, setFirst] = useState('');
  const keyed = row.boards.map((board) => ({ board, value: pieceKey(board), label: board.name }));
  const boardOf = (key: string): MatchRow['boards'][number] | undefined =>
    keyed.find(({ value }) => value === key)?.board;
  const nameOf = (ref: PieceRef): string => boardOf(pieceKey(ref))?.name ?? 'a board that is gone';
  const areApart = (a: PieceRef, b: PieceRef): boolean =>
    wish.apart.some(([x, y]) => (samePiece(x, a) && samePiece(y, b)) || (samePiece(x, b) && samePiece(y, a)));
  const keep = (a: string, b: string): void => {
    const [one, other] = [boardOf(a), boardOf(b)];
    setFirst('');
    if (!one || !other) return;
    const ref = ({ designId, copy }: PieceRef): PieceRef => ({ designId, copy });
    put({ ...wish, apart: [...wish.apart, [ref(one), ref(other)]] }, `Keep ${one.name} and ${other.name} apart`);
  };
  const chosen = boardOf(first);
  const others = keyed.filter(({ board }) => chosen && board !== chosen && !areApart(board, chosen));
  return (
    <div className={own.apart}>
      {wish.apart.map(([a, b]) => (
        <p key={`${pieceKey(a)} ${pieceKey(b)}`}>
          {`${nameOf(a)} and ${nameOf(b)} are kept apart. `}
          <Button
            size="small"
            variant="text"
            onClick={() =>
              put(
                { ...wish, apart: wish.apart.filter((pair) => !samePiece(pair[0], a) || !samePiece(pair[1], b)) },
                `Let ${nameOf(a)} and ${nameOf(b)} be neighbours`,
              )
            }
          >
            let them
          </Button>
        </p>
      ))}
      <div className="labelled">
        <span>Keep apart</span>
        <ChoiceField
          bare
          label="Keep a board apart"
          value={first}
          choices={[{ value: '', label: 'a board…' }, ...keyed.map(({ value, label }) => ({ value, label }))]}
          onCommit={setFirst}
        />
        <MenuButton
          label="from"
          name="Keep it apart from"
          disabled={!chosen}
          choices={others.map(({ value, label }) => ({ key: value, label, onPick: () => keep(first, value) }))}
        />
      </div>
    </div>
  );
}
