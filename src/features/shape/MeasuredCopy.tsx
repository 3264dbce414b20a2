'use client';

import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { checkReadings, largestStrays } from '@/core/bed/measured';
import { copyName } from '@/core/model/pieceRef';
import type { Measured } from '@/core/model/measuredSchema';
import type { PieceDesign } from '@/core/model/designSchema';
import { parseReadings, readingsText } from '@/core/formats/readings';
import { copiesOfDesigns, copyWords } from '@/core/records/copies';
import { isKnown } from '@/core/records/pieceMeasures';
import type { PieceRecord } from '@/core/records/recordSchemas';
import { formatMeasure } from '@/core/units/formatMeasure';
import { Tick } from '@/ui/controls/Tick';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useOwnWords, useUnits } from '@/ui/measure/UnitsContext';
import { useDesk } from '../desk/DeskContext';
import { pictureBed } from '../desk/pictures';
import { useCopies } from '../desk/useCopies';
import { CopyWater } from './CopyWater';
import styles from './MeasuredCopy.module.css';
import type { Stored } from '@/core/model/stored';

/** What readings look like. */
const EXAMPLE: Measured['readings'] = [
  { xMm: 70, yMm: 68, depthMm: 9.9 },
  { xMm: 94, yMm: 70, depthMm: 8.4 },
];

interface MeasuredCopyProps {
  design: Stored<PieceDesign>;
  /** The copy that is shown; null shows the bed as drawn. */
  copy: number | null;
  onCopy: (copy: number | null) => void;
  differences: boolean;
  onDifferences: (on: boolean) => void;
}

/** Measurements of single copies: which copy is shown, its depth readings, its fill test, and where it strays from the drawing. */
export function MeasuredCopy({ design, copy, onCopy, differences, onDifferences }: MeasuredCopyProps) {
  const { desk } = useDesk();
  const own = useOwnWords();
  const { data } = design;
  const copies = copiesOfDesigns([design], useCopies().data ?? [], desk.now);
  const measuredOf = (number: number): Stored<PieceRecord> | undefined =>
    desk.pieces.find((piece) => piece.data.designId === design.id && piece.data.copy === number);
  const piece = copy === null ? undefined : measuredOf(copy);
  return (
    <section className={styles.measured} aria-label="Measured copies">
      <ChoiceField
        label="Which bed to show"
        value={copy === null ? '' : String(copy)}
        choices={[
          { value: '', label: 'the bed as drawn' },
          ...copies
            .filter((one) => one.copy <= data.copies)
            .map((one) => ({
              value: String(one.copy),
              label: [
                `copy #${one.copy}`,
                measuredOf(one.copy) && 'measured',
                one.state !== 'open' && own(copyWords(one)),
              ]
                .filter(Boolean)
                .join(', '),
            })),
        ]}
        onCommit={(value) => onCopy(value === '' ? null : Number(value))}
      />
      {copy !== null && (
        <Measurements
          key={`${design.id}.${copy}`}
          design={design}
          copy={copy}
          piece={piece}
          differences={differences}
          onDifferences={onDifferences}
        />
      )}
    </section>
  );
}

function Measurements({
  design,
  copy,
  piece,
  differences,
  onDifferences,
}: Pick<MeasuredCopyProps, 'design' | 'differences' | 'onDifferences'> & {
  copy: number;
  piece: Stored<PieceRecord> | undefined;
}) {
  const { desk, edits } = useDesk();
  const units = useUnits();
  const levelMm = desk.set.data.levelMm;
  const measured: Measured = piece?.data.measured ?? { atLevelMm: levelMm, readings: [], fillMl: null };
  const [typed, setTyped] = useState<string | null>(null);
  const text = typed ?? readingsText(measured.readings, units);
  const parsed = parseReadings(text, units);
  const problems = [
    ...parsed.errors.map(({ message }) => message),
    ...checkReadings(parsed.readings, design.data.outline).map(({ message }) => message),
  ];
  const tag = copyName(design.data.tag, copy);

  const putPiece = (change: (now: PieceRecord) => PieceRecord, label: string): Promise<{ ok: boolean }> =>
    edits.run(({ pieces }) => {
      const stored = pieces.find((other) => other.data.designId === design.id && other.data.copy === copy);
      const next = change(
        stored?.data ?? { designId: design.id, copy, measured: { atLevelMm: levelMm, readings: [], fillMl: null } },
      );
      if (!stored) return isKnown(next) ? { do: 'add', kind: 'piece', setId: desk.set.id, data: next, label } : null;
      const { id, version } = stored;
      if (!isKnown(next)) return { do: 'remove', kind: 'piece', id, version };
      return { do: 'put', kind: 'piece', id, version, data: next, label };
    }, label);
  const put = (change: (now: Measured) => Measured, label: string): Promise<{ ok: boolean }> =>
    putPiece((now) => ({ ...now, measured: change(now.measured) }), label);
  const save = async (): Promise<void> => {
    if (typed === null || problems.length > 0) return;
    const outcome = await put((now) => ({ ...now, atLevelMm: levelMm, readings: parsed.readings }), `Measure ${tag}`);
    if (outcome.ok) setTyped(null);
  };
  return (
    <div className={styles.fields}>
      <TextField
        label={`Depths below the level, one a line: across, up, depth (${units.length})`}
        multiline
        minRows={4}
        maxRows={9}
        value={text}
        placeholder={readingsText(EXAMPLE, units)}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => void save()}
        error={problems.length > 0}
        helperText={
          problems[0] ??
          `${parsed.readings.length} ${parsed.readings.length === 1 ? 'reading' : 'readings'}; type them in bench order, or paste from a spreadsheet.`
        }
        slotProps={{ formHelperText: { role: problems.length > 0 ? 'alert' : undefined } }}
      />
      <MeasureField
        label="Fill test to the level: water or dry fine sand"
        quantity="volume"
        step={0.5}
        value={measured.fillMl ?? 0}
        hint="1 g of water is 1 ml; 0 for none"
        validate={(ml) => (ml < 0 || ml > 100_000 ? 'Between 0 and 100 000 ml' : null)}
        onCommit={(ml) =>
          void put((now) => ({ ...now, atLevelMm: levelMm, fillMl: ml === 0 ? null : ml }), `Fill test of ${tag}`)
        }
      />
      <CopyWater
        design={design}
        copy={copy}
        water={piece?.data.water}
        onWater={(water, label) =>
          void putPiece(({ water: _, ...now }) => ({ ...now, ...(water && { water }) }), label)
        }
      />
      {piece && (
        <>
          <Strays design={design.data} measured={piece.data.measured} />
          <Tick label="Show where it differs from the drawing" checked={differences} onChange={onDifferences} />
          <Button
            size="small"
            variant="text"
            onClick={() =>
              void put(
                () => ({ atLevelMm: levelMm, readings: [], fillMl: null }),
                `Forget what was measured on ${tag}`,
              ).then(() => setTyped(null))
            }
          >
            Forget these measurements
          </Button>
        </>
      )}
    </div>
  );
}

function Strays({ design, measured }: { design: PieceDesign; measured: Measured }) {
  const units = useUnits();
  const { deeper, shallower } = largestStrays(
    pictureBed(design, true).grid,
    pictureBed({ ...design, measured }, true).grid,
  );
  const mm = (value: number): string => formatMeasure(Math.abs(value), 'length', units);
  const say = ({ deeperMm, xMm, yMm }: typeof deeper, word: string): string =>
    `${mm(deeperMm)} ${word} than drawn at ${mm(xMm)} across, ${mm(yMm)} up`;
  const words = [
    deeper.deeperMm > 0.05 && say(deeper, 'deeper'),
    shallower.deeperMm < -0.05 && say(shallower, 'shallower'),
  ].filter(Boolean);
  return (
    <p className={styles.strays}>
      {words.length > 0 ? `Most: ${words.join('; ')}.` : `As drawn, within ${formatMeasure(0.05, 'length', units, 2)}.`}
    </p>
  );
}
