'use client';

import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { copyName } from '@/core/model/pieceRef';
import type { EdgeName } from '@/core/model/designSchema';
import { parseEdgeReadings, edgeReadingsText } from '@/core/formats/readings';
import type { MatchEdge } from '@/core/seams/matchTypes';
import { NOT_MEASURED, wasMeasured, withLevel } from '@/core/seams/measuredEdge';
import type { MeasuredEdge } from '@/core/model/seamSchema';
import { formatMeasure } from '@/core/units/formatMeasure';
import { Fold } from '@/ui/controls/Fold';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { asSeen } from '@/core/records/pieceMeasures';
import { useDesk } from '../desk/DeskContext';
import styles from './MatchStage.module.css';

const PLACES = ['start', 'middle', 'end'] as const;
const START: Partial<Record<EdgeName, readonly [string, string]>> = {
  east: ['south end', 'north end'],
  west: ['south end', 'north end'],
};

/** What was measured along one edge of one copy: its level at three places, its bed at as many as you like. */
export function EdgeMeasures({ edge, first }: { edge: MatchEdge; first?: number | undefined }) {
  const { desk, edits } = useDesk();
  const units = useUnits();
  const design = desk.designs.find(({ id }) => id === edge.designId);
  const [copy, setCopy] = useState(edge.copy ?? first ?? 1);
  const [typed, setTyped] = useState<string | null>(null);
  if (!design) return null;
  const stored = desk.pieces.find((piece) => piece.data.designId === design.id && piece.data.copy === copy);
  const own: MeasuredEdge = stored?.data.edges?.[edge.edge] ?? NOT_MEASURED;
  const levelMm = desk.set.data.levelMm;
  const put = (change: (now: MeasuredEdge) => MeasuredEdge, label: string): Promise<{ ok: boolean }> =>
    edits.run((view) => {
      const now = view.pieces.find((piece) => piece.data.designId === design.id && piece.data.copy === copy)?.data
        .edges?.[edge.edge];
      return {
        do: 'measure',
        setId: desk.set.id,
        pieces: asSeen(view, [{ designId: design.id, copy, edges: { [edge.edge]: change(now ?? NOT_MEASURED) } }]),
        label,
      };
    }, label);
  const name = copyName(design.data.tag, copy);
  const ends = START[edge.edge] ?? ['west end', 'east end'];
  const words = { start: ends[0], middle: 'middle', end: ends[1] };
  const levels = own.levels ?? [levelMm, levelMm, levelMm];
  const text = typed ?? edgeReadingsText(own.bed, units);
  const parsed = parseEdgeReadings(text, units, edge.lengthMm);
  const saveBed = async (): Promise<void> => {
    if (typed === null || parsed.errors.length > 0) return;
    if ((await put((now) => ({ ...now, bed: parsed.readings }), `Measure the ${edge.edge} edge of ${name}`)).ok)
      setTyped(null);
  };
  return (
    <Fold
      open={own.levels !== null || own.bed.length > 0}
      summary={`Measure the ${edge.edge} edge of ${design.data.tag}${own.levels || own.bed.length ? `, #${copy} measured` : ''}`}
    >
      <div className={styles.fields}>
        {design.data.copies > 1 && (
          <ChoiceField
            label="Copy"
            value={String(copy)}
            choices={Array.from({ length: design.data.copies }, (_, i) => ({
              value: String(i + 1),
              label: `#${i + 1}`,
            }))}
            onCommit={(value) => (setCopy(Number(value)), setTyped(null))}
          />
        )}
        {PLACES.map((place, i) => (
          <MeasureField
            key={`${copy}${place}`}
            label={`Level, ${words[place]}`}
            quantity="length"
            step={0.1}
            value={levels[i]!}
            hint={!own.levels ? 'as planned' : wasMeasured(own, i) ? undefined : 'taken over, not measured'}
            validate={(value) => (value < 0 || value > 300 ? 'Between 0 and 300 mm' : null)}
            onCommit={(value) => void put((now) => withLevel(now, i, value), `Measure the level of ${name}`)}
          />
        ))}
      </div>
      <TextField
        label={`Bed above the underside, one a line: along from the ${ends[0]}, height (${units.length})`}
        multiline
        minRows={2}
        maxRows={8}
        value={text}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => void saveBed()}
        error={parsed.errors.length > 0}
        helperText={
          parsed.errors[0]?.message ??
          `${parsed.readings.length} ${parsed.readings.length === 1 ? 'reading' : 'readings'} of ${formatMeasure(edge.lengthMm, 'length', units)}`
        }
      />
    </Fold>
  );
}
