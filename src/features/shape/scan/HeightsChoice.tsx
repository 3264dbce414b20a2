'use client';

import Button from '@mui/material/Button';
import { useEffect, useMemo, useRef, useState } from 'react';
import { LAND_OVER_LEVEL_MM } from '@/core/bed/checkDesign';
import { roundHeight, type BedGrid } from '@/core/bed/grid';
import { scanLand } from '@/core/bed/scanLand';
import type { PieceDesign } from '@/core/model/designSchema';
import { volumeCurve, volumeMl } from '@/core/bed/volumeCurve';
import { scanFeature, UP_AXES, type HeightField, type ScanView, type UpAxis } from '@/core/formats/heightField';
import type { HeightScale } from '@/core/formats/heightMap';
import type { ScanSummary } from '@/core/formats/scanFile';
import { waterLook } from '@/core/tint/waterLook';
import { formatMeasure } from '@/core/units/formatMeasure';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { paintBed } from '@/ui/plan/paintBed';
import type { ScanJob } from '@/workers/scanner';
import { useDesk, useLiveDesk } from '../../desk/DeskContext';
import type { ScanResult } from './scanResult';
import styles from './ScanDialog.module.css';

interface HeightsChoiceProps {
  summary: Exclude<ScanSummary, { kind: 'svg' }>;
  job: ScanJob;
  onResult: (result: ScanResult) => void;
}

const UNITS = [
  { value: '1', label: 'mm' },
  { value: '10', label: 'cm' },
  { value: '25.4', label: 'inches' },
  { value: '1000', label: 'm' },
] as const;
const UPS: readonly { value: UpAxis; label: string }[] = UP_AXES.map((value) => ({
  value,
  label: `${value} points up`,
}));
const TURNS = [
  { value: '0', label: 'as it is' },
  { value: '1', label: 'a quarter' },
  { value: '2', label: 'by half' },
  { value: '3', label: 'three quarters' },
] as const;
const LAND = '#8d9068';

/** How heights are to be taken: units, which way up, scale; with the bed seen from above and what it would hold. */
export function HeightsChoice({ summary, job, onResult }: HeightsChoiceProps) {
  const { desk } = useDesk();
  const units = useUnits();
  const levelMm = desk.set.data.levelMm;
  const [view, setView] = useState<ScanView>(() => ({
    unitMm: 1,
    up: summary.kind === 'stl' ? flattest(summary.size) : 'z',
    quarterTurns: 0,
  }));
  const [scale, setScale] = useState<HeightScale>(
    () => (summary.kind === 'png' && summary.scale) || { widthMm: 140, blackMm: 5, whiteMm: levelMm + 3 },
  );
  const [liftMm, setLiftMm] = useState(0);
  const [found, setFound] = useState<{ field: HeightField | null; complaint: string | null }>({
    field: null,
    complaint: null,
  });
  const how = summary.kind === 'stl' ? view : scale;
  useEffect(() => {
    let current = true;
    job.remote.field(how).then(
      (field) => current && setFound({ field, complaint: null }),
      (error: unknown) =>
        current && setFound({ field: null, complaint: error instanceof Error ? error.message : String(error) }),
    );
    return () => {
      current = false;
    };
  }, [job, how]);
  const { field, complaint } = found;
  useEffect(() => {
    const highest = field ? field.highestMm + liftMm : 0;
    const change = (design: PieceDesign): PieceDesign => ({
      ...design,
      outline:
        design.outline.kind === 'oval'
          ? { kind: 'oval', widthMm: round(field!.widthMm), lengthMm: round(field!.lengthMm) }
          : { kind: 'rectangle', widthMm: round(field!.widthMm), lengthMm: round(field!.lengthMm) },
      landMm: Math.min(300, Math.max(levelMm, Math.ceil(highest * 10) / 10)),
      drawnLevelMm: levelMm,
      features: [scanFeature(field!, 'scan', liftMm)],
    });
    onResult({ change: field ? change : null, what: 'Bed from a scan' });
  }, [field, liftMm, levelMm, onResult]);

  /** Brings the whole scan up by so much. */
  const raise = (byMm: number): void =>
    summary.kind === 'stl'
      ? setLiftMm(tenth(liftMm + byMm))
      : setScale({ ...scale, blackMm: tenth(scale.blackMm + byMm), whiteMm: tenth(scale.whiteMm + byMm) });
  const mm = (value: number): string => formatMeasure(value, 'length', units);
  return (
    <div className={styles.sides}>
      <div className={styles.fields}>
        {summary.kind === 'stl' ? (
          <>
            <p>{`${summary.triangles.toLocaleString('en')} triangles, ${summary.size.map((size) => Number(size.toPrecision(4))).join(' × ')} units`}</p>
            <ChoiceField
              label="Its units are"
              value={String(view.unitMm)}
              choices={UNITS}
              onCommit={(unit) => setView({ ...view, unitMm: Number(unit) })}
            />
            <ChoiceField
              label="Which way up"
              value={view.up}
              choices={UPS}
              onCommit={(up) => setView({ ...view, up })}
            />
            <ChoiceField
              label="Turned, anticlockwise"
              value={String(view.quarterTurns)}
              choices={TURNS}
              onCommit={(turns) => setView({ ...view, quarterTurns: Number(turns) })}
            />
            <MeasureField
              label="Floor under its lowest point"
              quantity="length"
              step={0.5}
              value={liftMm}
              hint="0 when the scan has its own underside"
              validate={(value) => (value < 0 || value > 100 ? 'Between 0 and 100 mm' : null)}
              onCommit={setLiftMm}
            />
          </>
        ) : (
          <>
            <p>{`${summary.columns} × ${summary.rows} pixels, ${summary.bits} bits${summary.scale ? '; it carries its own scale' : ''}`}</p>
            <MeasureField
              label="Width of the whole picture"
              quantity="length"
              value={scale.widthMm}
              validate={(value) => (value <= 0 || value > 3000 ? 'Between 0 and 3000 mm' : null)}
              onCommit={(widthMm) => setScale({ ...scale, widthMm })}
            />
            <MeasureField
              label="Black is at"
              quantity="length"
              step={0.5}
              value={scale.blackMm}
              validate={(value) => (value < 0 || value >= scale.whiteMm ? 'From 0 to below white' : null)}
              onCommit={(blackMm) => setScale({ ...scale, blackMm })}
            />
            <MeasureField
              label="White is at"
              quantity="length"
              step={0.5}
              value={scale.whiteMm}
              validate={(value) => (value <= scale.blackMm || value > 300 ? 'Above black, at most 300 mm' : null)}
              onCommit={(whiteMm) => setScale({ ...scale, whiteMm })}
            />
          </>
        )}
      </div>
      <div>
        {complaint && (
          <p role="alert" className={styles.complaint}>
            {complaint}
          </p>
        )}
        {!field && !complaint && <p aria-live="polite">Looking at it from above…</p>}
        {field && <FieldPicture field={field} liftMm={liftMm} levelMm={levelMm} />}
        {field && <OverLand field={field} liftMm={liftMm} levelMm={levelMm} onLift={raise} />}
        {field && (
          <p className={styles.teach}>
            {`${mm(field.widthMm)} × ${mm(field.lengthMm)}, ${mm(liftMm)} to ${mm(field.highestMm + liftMm)} above the underside`}
            {field.holes > 0.001 &&
              `; ${(field.holes * 100).toFixed(1)} % of it was not scanned and is taken from beside`}
          </p>
        )}
      </div>
    </div>
  );
}

const tenth = (mm: number): number => Math.round(mm * 10) / 10;
const round = (mm: number): number => Math.round(mm * 100) / 100;

/** A scanned tile lies flat: the axis along which it is thinnest is most likely the one that points up. */
function flattest([x, y, z]: readonly [number, number, number]): UpAxis {
  if (z <= x && z <= y) return 'z';
  return y <= x ? 'y' : 'x';
}

/** Said when the set's level stands over the banks of the scan, with what brings them up. */
function OverLand({
  field,
  liftMm,
  levelMm,
  onLift,
}: {
  field: HeightField;
  liftMm: number;
  levelMm: number;
  onLift: (byMm: number) => void;
}) {
  const units = useUnits();
  const landMm = useMemo(() => scanLand(field.columns, field.rows, field.heightMm) + liftMm, [field, liftMm]);
  if (levelMm <= landMm) return null;
  const mm = (value: number): string => formatMeasure(value, 'length', units);
  const byMm = tenth(levelMm + LAND_OVER_LEVEL_MM - landMm);
  return (
    <div role="alert" className={styles.complaint}>
      <p>{`The set's level, ${mm(levelMm)}, stands ${mm(levelMm - landMm)} over the land of this scan (${mm(landMm)}): water would stand on its banks.`}</p>
      <Button size="small" onClick={() => onLift(byMm)}>{`Lay ${mm(byMm)} of floor under it`}</Button>
    </div>
  );
}

function FieldPicture({ field, liftMm, levelMm }: { field: HeightField; liftMm: number; levelMm: number }) {
  const units = useUnits();
  const canvas = useRef<HTMLCanvasElement>(null);
  const grid = useMemo<BedGrid>(
    () => ({
      cellMm: field.stepMm,
      columns: field.columns,
      rows: field.rows,
      heightMm: field.heightMm.map((z) => roundHeight(z + liftMm)),
      coverage: new Float32Array(field.heightMm.length).fill(1),
    }),
    [field, liftMm],
  );
  const { tint } = useLiveDesk();
  const { hollowMl, landMl, landMm } = useMemo(() => {
    const curve = volumeCurve(grid);
    const land = scanLand(grid.columns, grid.rows, grid.heightMm);
    const hollow = volumeMl(curve, Math.min(levelMm, land));
    return { hollowMl: hollow, landMl: volumeMl(curve, levelMm) - hollow, landMm: land };
  }, [grid, levelMm]);
  const ml = (value: number): string => formatMeasure(value, 'volume', units);
  useEffect(() => {
    const element = canvas.current;
    if (!element) return;
    element.width = grid.columns;
    element.height = grid.rows;
    element
      .getContext('2d')
      ?.putImageData(
        paintBed(grid, levelMm, LAND, waterLook({ bedColour: '#b9a883' }, tint, Math.max(1, levelMm))),
        0,
        0,
      );
  }, [grid, levelMm, tint]);
  return (
    <figure className={styles.picture}>
      <canvas
        ref={canvas}
        role="img"
        aria-label="The scan from above, north at the top"
        style={{ aspectRatio: `${field.widthMm} / ${field.lengthMm}` }}
      />
      <figcaption>
        {`Up to ${formatMeasure(Math.min(levelMm, landMm), 'length', units)} its hollows hold ${ml(hollowMl)}`}
        {levelMm > landMm && `; ${ml(landMl)} more would stand over its land`}
      </figcaption>
    </figure>
  );
}
