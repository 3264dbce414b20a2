'use client';

import Button from '@mui/material/Button';
import Link from 'next/link';
import { useState } from 'react';
import type { WaterSet } from '@/core/records/recordSchemas';
import { replaceAt } from '@/core/records/replaceAt';
import { DEFAULT_KERF_MM, gaugeDrawing, gaugeStl, gaugeSvg, GAUGE_SIDES, type GaugeSide } from '@/core/formats/gauge';
import { edgeStandardSchema, type EdgeStandard } from '@/core/model/edgeStandardSchema';
import { formatMeasure } from '@/core/units/formatMeasure';
import { Fold } from '@/ui/controls/Fold';
import { MenuButton } from '@/ui/controls/MenuButton';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { WordField } from '@/ui/measure/WordField';
import { saveFile } from '@/ui/saveFile';
import { useDesk } from '../desk/DeskContext';
import styles from './MatchStage.module.css';
import own from './StandardsView.module.css';
import type { MatchEdge } from '@/core/seams/matchTypes';
import { fits, type KeeperProps } from './Keeper';

const FIELDS = [
  { key: 'portMm', label: 'Port centre from the left', quantity: 'length', step: 1 },
  { key: 'widthMm', label: 'Width at the level', quantity: 'length', step: 1 },
  { key: 'depthMm', label: 'Depth', quantity: 'length', step: 0.1 },
  { key: 'bankMm', label: 'Bank height', quantity: 'length', step: 1 },
  { key: 'bankSlope', label: 'Banks, run per rise', quantity: 'number', step: 0.1 },
  { key: 'levelMm', label: 'Level', quantity: 'length', step: 1 },
  { key: 'toleranceMm', label: 'May be off by', quantity: 'length', step: 0.1 },
  { key: 'blendMm', label: 'Beds drawn to it over', quantity: 'length', step: 1 },
  { key: 'edgeMm', label: 'Edge is long', quantity: 'length', step: 1 },
] as const;

const SECTIONS = [
  { value: 'trapezoid', label: 'Flat floor, sloping banks' },
  { value: 'bowl', label: 'Bowl, a parabola' },
  { value: 'v', label: 'V' },
] as const;

/** One standard: its picture, its measures, who takes it, and its gauges to cut. */
export function OneStandard({
  standard,
  index,
  open,
  put,
  edges,
  give,
}: {
  standard: EdgeStandard;
  index: number;
  open: boolean;
  put: (change: (set: WaterSet) => WaterSet, label: string) => void;
  edges: readonly MatchEdge[];
  give: KeeperProps['give'];
}) {
  const { desk } = useDesk();
  const units = useUnits();
  const at = (key: string): (string | number)[] => ['standards', index, key];
  const edit = (key: string, value: unknown): void =>
    put((set) => replaceAt(set, at(key), value), `Change ${standard.name}`);
  // What a change makes wrong elsewhere in the standard is told at the field that was changed.
  const validate =
    (key: string) =>
    (value: unknown): string | null =>
      edgeStandardSchema.safeParse(replaceAt(standard, [key], value)).error?.issues[0]?.message ?? null;
  const [thicknessMm, setThicknessMm] = useState(3);
  const kerfMm = standard.kerfMm ?? DEFAULT_KERF_MM;
  const file = (side: GaugeSide, kind: string): string => `${standard.name.replace(/[^\w-]+/g, '-')}-${side}.${kind}`;
  return (
    <Fold summary={standard.name} open={open}>
      <div className={styles.fields}>
        <WordField
          label="Name"
          value={standard.name}
          validate={validate('name')}
          onCommit={(value) => edit('name', value)}
        />
        {FIELDS.map(({ key, label, quantity, step }) => (
          <MeasureField
            key={key}
            label={label}
            quantity={quantity}
            step={step}
            value={standard[key]}
            validate={validate(key)}
            onCommit={(value) => edit(key, value)}
          />
        ))}
        <ChoiceField
          label="Section"
          value={standard.section}
          choices={SECTIONS}
          onCommit={(value) => edit('section', value)}
        />
      </div>
      {Math.abs(standard.levelMm - desk.set.data.levelMm) > 0.05 && (
        <p className={own.level}>
          {`It is agreed for a level of ${formatMeasure(standard.levelMm, 'length', units)}; the set stands at ${formatMeasure(desk.set.data.levelMm, 'length', units)}. `}
          <Button
            size="small"
            onClick={() =>
              put(
                (set) =>
                  replaceAt(set, ['standards', index], {
                    ...standard,
                    levelMm: set.levelMm,
                    bankMm: standard.bankMm + set.levelMm - standard.levelMm,
                  }),
                `Bring ${standard.name} to the level`,
              )
            }
          >
            Bring it to the set’s level
          </Button>
        </p>
      )}
      <GiveToMany standard={standard} edges={edges} give={give} />
      <GaugePicture standard={standard} />
      <div className={styles.fields}>
        <MeasureField
          label="The gauge’s cut is wide"
          quantity="length"
          step={0.05}
          value={kerfMm}
          validate={(value) => (value < 0 || value > 3 ? 'Between 0 and 3 mm' : null)}
          onCommit={(value) => edit('kerfMm', value)}
        />
        <MeasureField
          label="A printed plate is thick"
          quantity="length"
          step={0.5}
          value={thicknessMm}
          validate={(value) => (value < 0.4 || value > 20 ? 'Between 0.4 and 20 mm' : null)}
          onCommit={setThicknessMm}
        />
        <WordField
          label="Text on the gauge"
          value={standard.gaugeLabel ?? standard.name}
          validate={validate('gaugeLabel')}
          onCommit={(value) => edit('gaugeLabel', value)}
        />
      </div>
      <p className={own.gauges}>
        Cutting gauge at 1:1:{' '}
        {GAUGE_SIDES.map((side) => (
          <span key={side}>
            <Button
              size="small"
              onClick={() => saveFile(file(side, 'svg'), gaugeSvg(standard, side, kerfMm), 'image/svg+xml')}
            >
              {`${side}, SVG`}
            </Button>{' '}
            <Button
              size="small"
              onClick={() => saveFile(file(side, 'stl'), gaugeStl(standard, side, kerfMm, thicknessMm), 'model/stl')}
            >
              {`${side}, STL`}
            </Button>{' '}
          </span>
        ))}
        <Link href={`/gauges/${desk.set.id}/${standard.id}`}>Print both at true size</Link>
        <Button
          size="small"
          variant="text"

          onClick={() =>
            put(
              (set) => ({ ...set, standards: (set.standards ?? []).filter(({ id }) => id !== standard.id) }),
              `Remove ${standard.name}`,
            )
          }
        >
          {`Remove ${standard.name}`}
        </Button>
      </p>
    </Fold>
  );
}

/** Gives a standard to many edges at once: all that it fits, those that have none, or those of one design. */
function GiveToMany({
  standard,
  edges,
  give,
}: {
  standard: EdgeStandard;
  edges: readonly MatchEdge[];
  give: KeeperProps['give'];
}) {
  const { desk } = useDesk();
  const fitting = edges.filter((edge) => edge.wet && fits(standard, edge));
  const bare = fitting.filter(({ standard: given }) => given === null);
  const groups = [
    { key: 'bare', label: 'wet edges that have none', to: bare },
    { key: 'all', label: 'all wet edges of its length', to: fitting },
    ...desk.designs.map(({ id, data }) => ({
      key: id,
      label: `the wet edges of ${data.tag}`,
      to: fitting.filter(({ designId }) => designId === id),
    })),
  ].filter(({ to }) => to.length > 0);
  return (
    <MenuButton
      label="Give it to"
      name={`Give ${standard.name} to many edges`}
      choices={groups.map(({ key, label, to }) => ({
        key,
        label: `${label}, ${to.length}`,
        onPick: () => give(to, standard.id),
      }))}
    />
  );
}

/** The standard as its female gauge shows it, level and all. */
function GaugePicture({ standard }: { standard: EdgeStandard }) {
  const units = useUnits();
  const { path, widthMm, heightMm } = gaugeDrawing(standard, 'female', 0);
  const level = heightMm - standard.levelMm;
  const { portMm, widthMm: water } = standard;
  return (
    <svg
      className={own.picture}
      viewBox={`-2 ${heightMm - standard.bankMm - 6} ${widthMm + 4} ${standard.bankMm + 8}`}
      role="img"
      aria-label={`${standard.name}: water ${formatMeasure(water, 'length', units)} wide and ${formatMeasure(standard.depthMm, 'length', units)} deep`}
    >
      {water > 0 && (
        <path
          d={`M${Math.max(0, portMm - water / 2)} ${level}H${Math.min(widthMm, portMm + water / 2)}V${heightMm}H${Math.max(0, portMm - water / 2)}Z`}
          className={own.water}
        />
      )}
      <path d={path} className={own.body} />
      <path d={`M0 ${level}H${widthMm}`} className={own.levelLine} />
    </svg>
  );
}
