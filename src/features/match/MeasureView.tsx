'use client';

import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import Button from '@mui/material/Button';
import { useSearchParams } from 'next/navigation';
import { useMemo, useRef, useState } from 'react';
import { asSeen } from '@/core/records/pieceMeasures';
import type { EdgeName } from '@/core/model/designSchema';
import { edgeCsv, parseEdgeCsv } from '@/core/formats/edgeCsv';
import type { MatchSet } from '@/core/seams/matchSet';
import { NOT_MEASURED, wasMeasured, withLevel } from '@/core/seams/measuredEdge';
import type { MeasuredEdge } from '@/core/model/seamSchema';
import { editText, preferredUnit } from '@/core/units/formatMeasure';
import { parseMeasure } from '@/core/units/parseMeasure';
import { FileButton } from '@/ui/controls/FileButton';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { saveFile } from '@/ui/saveFile';
import { useDesk } from '../desk/DeskContext';
import styles from './MatchStage.module.css';
import { BedPairs } from './BedPairs';
import { benchRows, type BenchRow } from './benchList';
import { GaugeSource } from '../desk/GaugeSource';
import own from './MeasureView.module.css';

const ENDS: Partial<Record<EdgeName, string>> = {
  north: 'west → east',
  south: 'west → east',
  east: 'south → north',
  west: 'south → north',
};

/** Measuring in the order of the bench: piece after piece, edge after edge; Enter goes on to the next. Measured beats drawn. */
export function MeasureView({ match }: { match: MatchSet | null }) {
  const { desk } = useDesk();
  const [only, setOnly] = useState(useSearchParams().get('piece') ?? '');
  const rows = useMemo(() => benchRows(match, desk), [match, desk]);
  const shown = rows.filter(({ designId }) => only === '' || designId === only);
  const names = desk.designs.filter(({ id }) => rows.some(({ designId }) => designId === id));
  const measured = rows.filter((row) => row.measured !== null).length;
  if (match && rows.length === 0) return <p className={styles.teach}>No edge of this set has water to measure.</p>;
  return (
    <div className={own.view}>
      <div className={own.head}>
        <p className={styles.small}>
          Stand the piece on a flat table and measure up from the table: the water at both ends and the middle of the
          edge, and the bed where you like. Enter goes on to the next field, an empty field forgets the reading; a level
          in pencil was not measured but taken over from the others.{' '}
          {`${measured} of ${rows.length} edges are measured.`}
        </p>
        <div className="labelled">
          <span>Show</span>
          <ChoiceField
            bare
            label="Which pieces to show"
            value={only}
            choices={[
              { value: '', label: 'all pieces' },
              ...names.map(({ id, data }) => ({ value: id, label: data.tag })),
            ]}
            onCommit={setOnly}
          />
        </div>
        <CsvDoor />
      </div>
      <BenchTable rows={shown} />
    </div>
  );
}

function BenchTable({ rows }: { rows: readonly BenchRow[] }) {
  const { desk, edits } = useDesk();
  const units = useUnits();
  const table = useRef<HTMLTableElement>(null);
  const put = ({ designId, copy, edge, name }: BenchRow, make: (now: MeasuredEdge) => MeasuredEdge): void =>
    void edits.run((view) => {
      const now =
        view.pieces.find((piece) => piece.data.designId === designId && piece.data.copy === copy)?.data.edges?.[edge] ??
        NOT_MEASURED;
      return {
        do: 'measure',
        setId: desk.set.id,
        pieces: asSeen(view, [{ designId, copy, edges: { [edge]: make(now) } }]),
        label: `Measure the ${edge} edge of ${name}`,
      };
    });
  const next = (from: HTMLInputElement, back: boolean): void => {
    const fields = [...(table.current?.querySelectorAll('input') ?? [])];
    fields[fields.indexOf(from) + (back ? -1 : 1)]?.focus();
  };
  return (
    <div className={own.scroll}>
      <GaugeSource within={table} />
      <Table ref={table} className={own.table}>
        <TableHead>
          <TableRow>
            <TableCell>Piece</TableCell>
            <TableCell>Edge</TableCell>
            <TableCell>{`Level at its start, ${units.length}`}</TableCell>
            <TableCell>middle</TableCell>
            <TableCell>end</TableCell>
            <TableCell>Bed: how far along, how high</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {rows.map((row, i) => (
            <TableRow key={`${row.name} ${row.edge}`} data-first={rows[i - 1]?.name !== row.name || undefined}>
              <TableCell component="th" scope="row">
                {rows[i - 1]?.name !== row.name ? row.name : ''}
              </TableCell>
              <TableCell className={own.edge}>
                {row.edge} <small>{ENDS[row.edge]}</small>
              </TableCell>
              {(['start', 'middle', 'end'] as const).map((place, k) => (
                <TableCell key={place}>
                  <Level
                    row={row}
                    k={k}
                    label={`${row.name} ${row.edge}, level at the ${place}`}
                    put={put}
                    next={next}
                  />
                </TableCell>
              ))}
              <TableCell>
                <BedPairs
                  name={`${row.name} ${row.edge}`}
                  lengthMm={row.lengthMm}
                  bed={row.measured?.bed ?? []}
                  onBed={(bed) => put(row, (now) => ({ ...now, bed }))}
                  next={next}
                />
              </TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </div>
  );
}

interface CellProps {
  row: BenchRow;
  put: (row: BenchRow, make: (now: MeasuredEdge) => MeasuredEdge) => void;
  next: (from: HTMLInputElement, back: boolean) => void;
}

/** What a field holds while it is typed in, and what is wrong with it. */
function useTyped(
  stored: string,
  take: (text: string) => string | null,
): { props: React.InputHTMLAttributes<HTMLInputElement>; complaint: string | null; commit: () => boolean } {
  const [typed, setTyped] = useState<string | null>(null);
  const [complaint, setComplaint] = useState<string | null>(null);
  const commit = (): boolean => {
    if (typed === null || typed === stored) return true;
    const wrong = take(typed.trim());
    setComplaint(wrong);
    if (wrong === null) setTyped(null);
    return wrong === null;
  };
  return {
    props: {
      value: typed ?? stored,
      onChange: (event) => setTyped(event.target.value),
      onBlur: commit,
      onFocus: (event) => event.target.select(),
      'aria-invalid': complaint !== null,
      autoComplete: 'off',
    },
    complaint,
    commit,
  };
}

function Level({ row, k, label, put, next }: CellProps & { k: number; label: string }) {
  const units = useUnits();
  const stored = row.measured?.levels ? editText(row.measured.levels[k]!, 'length', units) : '';
  const takenOver = stored !== '' && !wasMeasured(row.measured!, k);
  const { props, complaint, commit } = useTyped(stored, (text) => {
    if (text === '') {
      put(row, ({ takenOver: _, ...now }) => ({ ...now, levels: null }));
      return null;
    }
    const parsed = parseMeasure(text, 'length', preferredUnit('length', units));
    if (!parsed.ok) return parsed.message;
    if (parsed.value < 0 || parsed.value > 300) return 'Between 0 and 300 mm';
    put(row, (now) => withLevel(now, k, parsed.value));
    return null;
  });
  return (
    <>
      <input
        {...props}
        aria-label={label}
        inputMode="decimal"
        data-gauge={row.plannedMm[k]}
        className={own.level}
        placeholder={`plan ${editText(row.plannedMm[k]!, 'length', units)}`}
        data-taken-over={takenOver || undefined}
        title={takenOver ? 'Not measured: taken over from the others' : undefined}
        onKeyDown={(event) =>
          event.key === 'Enter' && (event.preventDefault(), commit() && next(event.currentTarget, event.shiftKey))
        }
      />
      {complaint && (
        <small role="alert" className={own.wrong}>
          {complaint}
        </small>
      )}
    </>
  );
}

/** Readings of the whole set out to a file, or in from one: all of its lines, or none. */
function CsvDoor() {
  const { desk, edits } = useDesk();
  const [told, setTold] = useState<{ good: boolean; lines: string[] } | null>(null);
  const read = async (chosen: File): Promise<void> => {
    const { copies, errors } = parseEdgeCsv(await chosen.text(), desk.designs);
    if (errors.length > 0)
      return setTold({
        good: false,
        lines: [
          `${chosen.name} was not taken in:`,
          ...errors.slice(0, 6).map(({ message }) => message),
          ...(errors.length > 6 ? [`and ${errors.length - 6} more`] : []),
        ],
      });
    const outcome = await edits.run(
      (view) => ({
        do: 'measure',
        setId: desk.set.id,
        pieces: asSeen(view, copies),
        label: `Take in ${chosen.name}`.slice(0, 80),
      }),
      `${chosen.name} taken in`,
    );
    setTold(
      outcome.ok
        ? { good: true, lines: [`Readings of ${copies.length} ${copies.length === 1 ? 'piece' : 'pieces'} taken in.`] }
        : null,
    );
  };
  return (
    <div className={own.csv}>
      <Button
        size="small"
        onClick={() =>
          saveFile(
            `${desk.set.data.name.replace(/[^\w-]+/g, '-')}-edges.csv`,
            edgeCsv(desk.pieces, desk.designs),
            'text/csv',
          )
        }
      >
        Save as CSV
      </Button>
      <FileButton
        label="Take in a CSV"
        name="A CSV of edge readings"
        accept=".csv,text/csv,text/plain"
        onFile={(chosen) => void read(chosen)}
      />
      {told && (
        <div role={told.good ? 'status' : 'alert'} className={own.told} data-good={told.good || undefined}>
          {told.lines.map((line) => (
            <p key={line}>{line}</p>
          ))}
        </div>
      )}
    </div>
  );
}
