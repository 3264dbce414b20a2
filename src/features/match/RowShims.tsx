'use client';

import Button from '@mui/material/Button';
import { useMemo, useState } from 'react';
import { copyName } from '@/core/model/pieceRef';
import type { MatchRow } from '@/core/seams/matchRow';
import type { CornerHeights } from '@/core/model/seamSchema';
import { shimRow, type CornerShims } from '@/core/seams/shims';
import { asDrawn } from '@/core/seams/standing';
import { editText, preferredUnit } from '@/core/units/formatMeasure';
import { parseMeasure } from '@/core/units/parseMeasure';
import { Tick } from '@/ui/controls/Tick';
import { useUnits } from '@/ui/measure/UnitsContext';
import { WordField } from '@/ui/measure/WordField';
import { asSeen } from '@/core/records/pieceMeasures';
import { useDesk } from '../desk/DeskContext';
import { shimWords } from './WaysToClose';
import styles from './MatchStage.module.css';
import own from './RowView.module.css';

/** The maker's strips, and how to lay them under the row so that its worst step is least. */
export function RowShims({ row }: { row: MatchRow }) {
  const { desk, edits, changeSet } = useDesk();
  const units = useUnits();
  const [perCorner, setPerCorner] = useState(false);
  const strips = useMemo(() => desk.set.data.shimsMm ?? [], [desk.set.data.shimsMm]);
  const plan = useMemo(() => shimRow(row.ends, strips, { perCorner }), [row, strips, perCorner]);
  // Strips come in turns of a millimetre: their thickness is not to be rounded.
  const mm = (value: number): string =>
    `${editText(value, 'length', units)}\u00a0${preferredUnit('length', units).symbol}`;
  const parse = (text: string): ReturnType<typeof parseMeasure>[] =>
    text
      .split(/[,;]\s*|\s{2,}/)
      .filter((part) => part.trim() !== '')
      .map((part) => parseMeasure(part, 'length', preferredUnit('length', units)));
  const complaint = (text: string): string | null => {
    const values = parse(text);
    const bad = values.find((value) => !value.ok);
    if (bad && !bad.ok) return bad.message;
    if (values.some((value) => value.ok && (value.value <= 0 || value.value > 20))) return 'Each between 0 and 20 mm';
    return values.length > 8 ? 'At most 8 thicknesses' : null;
  };
  const save = (text: string): void =>
    changeSet(
      (set) => ({ ...set, shimsMm: parse(text).map((value) => (value.ok ? value.value : 0)) }),
      'Change the shim strips',
    );
  const laid = row.result.places
    .map(({ board, turned }, i) => {
      const { name, designId, copy } = row.boards[board]!;
      const { frontLeft, backLeft, frontRight, backRight } = plan.shims[i]!;
      const corners = asDrawn([frontLeft.raiseMm, backLeft.raiseMm, frontRight.raiseMm, backRight.raiseMm], turned);
      return { name, designId, copy, corners, strips: plan.shims[i]! };
    })
    .filter(({ corners }) => corners.some((height) => height > 0));
  const standing = desk.pieces.filter(
    ({ data }) => data.shimsMm && row.boards.some(({ designId }) => designId === data.designId),
  );
  const isLaid =
    standing.length === laid.length &&
    laid.every(({ designId, copy, corners }) =>
      standing.some(
        ({ data }) =>
          data.designId === designId &&
          data.copy === copy &&
          corners.every((height, i) => Math.abs(height - data.shimsMm![i]!) < 1e-6),
      ),
    );
  // What lay there before gives way: the plan is for the bare boards.
  const lay = (): void =>
    void edits.run(
      (view) => ({
        do: 'measure',
        setId: desk.set.id,
        label: 'Lay shims under the row',
        pieces: asSeen(view, [
          ...standing
            .filter(({ data }) => !laid.some(({ designId, copy }) => data.designId === designId && data.copy === copy))
            .map(({ data: { designId, copy } }) => ({ designId, copy, shimsMm: null })),
          ...laid.map(({ designId, copy, corners }) => ({ designId, copy, shimsMm: corners })),
        ]),
      }),
      'Shims laid under the row',
    );
  const takeOut = (): void =>
    void edits.run(
      ({ pieces }) => ({
        do: 'measure',
        setId: desk.set.id,
        label: 'Take all shims out',
        pieces: pieces
          .filter(({ id }) => standing.some((piece) => piece.id === id))
          .map(({ version, data: { designId, copy } }) => ({ designId, copy, version, shimsMm: null })),
      }),
      'Shims taken out',
    );
  const tag = (designId: string): string => desk.designs.find(({ id }) => id === designId)?.data.tag ?? '';
  return (
    <section aria-label="Shims" className={own.shims}>
      <h2 className={styles.heading}>Shims under the row</h2>
      <WordField
        label={`Shim strips at hand, ${units.length}, with commas`}
        value={strips.map((strip) => (units.length === 'mm' ? String(strip) : mm(strip))).join(', ')}
        validate={complaint}
        onCommit={save}
      />
      <Tick label="under each corner apart" checked={perCorner} onChange={setPerCorner} />
      {strips.length === 0 && (
        <p className={styles.small}>
          Type the thicknesses of card and strip that you have; Aguada finds where to lay them.
        </p>
      )}
      {strips.length > 0 && plan.beforeMm <= 0.05 && (
        <p className={styles.small}>Nothing to shim: no step is above a twentieth of a millimetre.</p>
      )}
      {strips.length > 0 &&
        plan.beforeMm > 0.05 &&
        (plan.worstMm < plan.beforeMm - 0.01 ? (
          <>
            <ul className={own.laid}>
              {laid.map(({ name, corners, strips: used }) => (
                <li key={name}>
                  <strong>{name}</strong>
                  {`: ${shimWords(corners, mm)}${stripWords(used, mm)}`}
                </li>
              ))}
            </ul>
            <p
              className={styles.small}
            >{`The worst step falls from ${mm(plan.beforeMm)} to ${mm(plan.worstMm)}. No other laying of up to ${plan.mostStrips === 1 ? 'one strip' : `${plan.mostStrips} strips`} under a corner leaves less.`}</p>
            {isLaid ? (
              <p className={styles.small}>They lie there.</p>
            ) : (
              <Button variant="outlined" size="small" onClick={lay}>
                Lay these shims
              </Button>
            )}
          </>
        ) : (
          <p className={styles.small}>{`No shim helps: the worst step stays ${mm(plan.beforeMm)}.`}</p>
        ))}
      {standing.length > 0 && (
        <>
          {!isLaid && (
            <ul className={own.laid}>
              {standing.map(({ id, data }) => (
                <li
                  key={id}
                >{`${copyName(tag(data.designId), data.copy)} stands on ${shimWords(data.shimsMm as CornerHeights, mm)}.`}</li>
              ))}
            </ul>
          )}
          <Button size="small" variant="text" onClick={takeOut}>
            Take all shims out
          </Button>
        </>
      )}
    </section>
  );
}

/** Which strips make up a shim, where it takes more than one. */
function stripWords(
  { frontLeft, backLeft, frontRight, backRight }: CornerShims,
  mm: (value: number) => string,
): string {
  const most = [frontLeft, backLeft, frontRight, backRight].reduce((a, b) =>
    b.strips.length > a.strips.length ? b : a,
  );
  return most.strips.length > 1 ? ` (${most.strips.map(mm).join(' + ')})` : '';
}
