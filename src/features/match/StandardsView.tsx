'use client';

import Button from '@mui/material/Button';
import Link from 'next/link';
import { useState } from 'react';
import type { EdgeName, PieceDesign } from '@/core/bed/schema';
import type { WaterSet } from '@/core/records/schema';
import { replaceAt } from '@/core/records/replaceAt';
import { DEFAULT_KERF_MM, gaugeDrawing, gaugeStl, gaugeSvg, GAUGE_SIDES, type GaugeSide } from '@/core/formats/gauge';
import type { MatchEdge, MatchSet } from '@/core/seams/matchSet';
import { standardFrom } from '@/core/seams/seamEdge';
import { edgeStandardSchema, type EdgeStandard } from '@/core/bed/edgeStandardSchema';
import { SEAM_LIMITS, seamLimitsSchema, type SeamLimits } from '@/core/seams/schema';
import { formatMeasure } from '@/core/units/formatMeasure';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { WordField } from '@/ui/measure/WordField';
import { saveFile } from '@/ui/saveFile';
import { useDesk } from '../desk/DeskContext';
import styles from './MatchStage.module.css';
import own from './StandardsView.module.css';

const FIELDS = [
  { key: 'portMm', label: 'Port centre from the left' },
  { key: 'widthMm', label: 'Width at the level' },
  { key: 'depthMm', label: 'Depth' },
  { key: 'bankMm', label: 'Bank height' },
  { key: 'levelMm', label: 'Level' },
  { key: 'toleranceMm', label: 'May be off by' },
  { key: 'blendMm', label: 'Beds drawn to it over' },
] as const;
const SECTIONS = [
  { value: 'trapezoid', label: 'Flat floor, sloping banks' },
  { value: 'bowl', label: 'Bowl' },
  { value: 'v', label: 'V' },
] as const;

/** The set's edge standards: taken from an edge or typed, given to edges, departures flagged, gauges to cut by. */
export function StandardsView({ match }: { match: MatchSet | null }) {
  const { desk, door, shapeDesign } = useDesk();
  const units = useUnits();
  const { data } = desk.set;
  const standards = data.standards ?? [];
  const put = (change: (set: WaterSet) => WaterSet, label: string): void =>
    void door.run(
      ({ set }) => ({ do: 'put', kind: 'set', id: set.id, version: set.version, data: change(set.data), label }),
      label,
    );
  // One that was just added stands open: its fields are what comes next.
  const [added, setAdded] = useState<number | null>(null);
  const add = (make: (id: string) => EdgeStandard, label: string): void => {
    setAdded(standards.length);
    put((set) => {
      const known = set.standards ?? [];
      let number = known.length + 1;
      while (known.some(({ id }) => id === `standard-${number}`)) number++;
      return { ...set, standards: [...known, make(`standard-${number}`)] };
    }, label);
  };
  const take = (edge: MatchEdge): void =>
    add(
      (id) =>
        standardFrom(edge.heightMm, edge.lengthMm, edge.levelMm[1], `${edge.piece} ${edge.edge}`.slice(0, 40), id),
      `Take a standard from ${edge.piece} ${edge.edge}`,
    );
  const type = (): void =>
    add(
      (id) =>
        typedStandard(
          id,
          match?.edges.find(({ wet }) => wet)?.lengthMm ?? match?.edges[0]?.lengthMm ?? 140,
          data.levelMm,
        ),
      'Add an edge standard',
    );
  const give = (edge: MatchEdge, standard: string): void =>
    shapeDesign(
      edge.designId,
      (newest) => ({ ...newest, edgeStandards: withStandard(newest.edgeStandards, edge.edge, standard) }),
      `Give ${edge.piece} ${edge.edge} a standard`,
    );
  // Copies that were measured stand beside their design; one of each edge is enough here.
  const edges = (match?.edges ?? []).filter(
    ({ designId, edge }, i, all) => all.findIndex((other) => other.designId === designId && other.edge === edge) === i,
  );
  const sources = (match?.edges ?? []).filter((edge) => edge.measured || edges.includes(edge));
  return (
    <div className={own.standards}>
      <section aria-label="Edge standards">
        <h2 className={styles.heading}>Edge standards</h2>
        <p className={styles.small}>
          An agreed profile for edges that must meet. Take one from an edge that is right or type it, then give it to
          the others: their beds are drawn to it, and what was carved otherwise is flagged.
        </p>
        {standards.map((standard, index) => (
          <OneStandard key={standard.id} standard={standard} index={index} open={index === added} put={put} />
        ))}
        {standards.length < 12 && (
          <div className={own.add}>
            <label>
              Take one from{' '}
              <select value="" onChange={(event) => take(sources[Number(event.target.value)]!)}>
                <option value="" disabled>
                  an edge…
                </option>
                {sources.map((edge, i) => (
                  <option
                    key={`${edge.piece}${edge.edge}`}
                    value={i}
                  >{`${edge.piece} ${edge.edge}${edge.measured ? ', measured' : edge.wet ? '' : ', dry'}`}</option>
                ))}
              </select>
            </label>
            <Button size="small" onClick={type}>
              Type one
            </Button>
          </div>
        )}
        <Limits put={put} />
      </section>
      <section aria-label="Who keeps to what">
        <h2 className={styles.heading}>Who keeps to what</h2>
        {standards.length === 0 && (
          <p className={styles.small}>Once there is a standard, each edge can take it here.</p>
        )}
        {standards.length > 0 && (
          <ul className={styles.given}>
            {edges.map((edge) => {
              const design = desk.designs.find(({ id }) => id === edge.designId);
              const id = design?.data.edgeStandards?.[edge.edge] ?? '';
              return (
                <li key={`${edge.piece}${edge.edge}`}>
                  <span>{`${design?.data.tag ?? edge.piece} ${edge.edge}`}</span>
                  <select
                    aria-label={`Standard of ${design?.data.tag ?? edge.piece} ${edge.edge}`}
                    value={standards.some((standard) => standard.id === id) ? id : ''}
                    onChange={(event) => give(edge, event.target.value)}
                  >
                    <option value="">none</option>
                    {standards.map((standard) => (
                      <option
                        key={standard.id}
                        value={standard.id}
                        disabled={Math.abs(standard.edgeMm - edge.lengthMm) > 1}
                      >
                        {Math.abs(standard.edgeMm - edge.lengthMm) > 1
                          ? `${standard.name}, for edges of ${formatMeasure(standard.edgeMm, 'length', units, 0)}`
                          : standard.name}
                      </option>
                    ))}
                  </select>
                  {edge.departs && (
                    <em>{`${edge.measured ? 'Measured' : 'Carved'} ${formatMeasure(Math.abs(edge.departs.offMm), 'length', units)} ${edge.departs.offMm > 0 ? 'high' : 'low'}, ${formatMeasure(edge.departs.atMm, 'length', units, 0)} from the left${edge.drawnTo && !edge.measured ? '; drawn to it all the same' : ''}`}</em>
                  )}
                  {edge.standard && !edge.departs && <em data-good>keeps to it</em>}
                </li>
              );
            })}
          </ul>
        )}
      </section>
    </div>
  );
}

/** A standard to start from: a creek as wide as two fifths of the edge. */
const typedStandard = (id: string, edgeMm: number, levelMm: number): EdgeStandard => ({
  id,
  name: 'New standard',
  edgeMm: Math.round(edgeMm * 10) / 10,
  portMm: Math.round(edgeMm / 2),
  widthMm: Math.round(edgeMm * 0.4),
  depthMm: Math.max(1, Math.min(6, levelMm - 4)),
  section: 'trapezoid',
  bankSlope: 1,
  levelMm,
  bankMm: levelMm + 3,
  toleranceMm: 0.5,
  blendMm: 12,
});

const withStandard = (
  given: PieceDesign['edgeStandards'],
  edge: EdgeName,
  id: string,
): PieceDesign['edgeStandards'] => {
  const others = Object.fromEntries(Object.entries(given ?? {}).filter(([name]) => name !== edge));
  return id === '' ? others : { ...others, [edge]: id };
};

const LIMITS = [
  { key: 'stepMm', label: 'Step', quantity: 'length', step: 0.1 },
  { key: 'gapMm', label: 'Gap of the beds', quantity: 'length', step: 0.1 },
  { key: 'deltaE', label: 'Colour difference', quantity: 'number', step: 0.5 },
] as const;

/** Up to where a seam of this set closes, and up to where it passes at arm's length. */
function Limits({ put }: { put: (change: (set: WaterSet) => WaterSet, label: string) => void }) {
  const { desk } = useDesk();
  const limits = desk.set.data.seamLimits ?? SEAM_LIMITS;
  const change = (key: keyof SeamLimits, i: number, value: number): SeamLimits => ({
    ...limits,
    [key]: i === 0 ? [value, limits[key][1]] : [limits[key][0], value],
  });
  return (
    <details className={styles.standard}>
      <summary>What closes, what passes</summary>
      <div className={styles.fields}>
        {LIMITS.flatMap(({ key, label, quantity, step }) =>
          ['closes', 'passes'].map((word, i) => (
            <MeasureField
              key={`${key}${word}`}
              label={`${label}, ${word} to`}
              quantity={quantity}
              step={step}
              value={limits[key][i]!}
              validate={(value) => seamLimitsSchema.safeParse(change(key, i, value)).error?.issues[0]?.message ?? null}
              onCommit={(value) => put((set) => ({ ...set, seamLimits: change(key, i, value) }), `Change what ${word}`)}
            />
          )),
        )}
      </div>
    </details>
  );
}

function OneStandard({
  standard,
  index,
  open,
  put,
}: {
  standard: EdgeStandard;
  index: number;
  open: boolean;
  put: (change: (set: WaterSet) => WaterSet, label: string) => void;
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
    <details className={styles.standard} open={open}>
      <summary>{standard.name}</summary>
      <div className={styles.fields}>
        <WordField
          label="Name"
          value={standard.name}
          validate={validate('name')}
          onCommit={(value) => edit('name', value)}
        />
        {FIELDS.map(({ key, label }) => (
          <MeasureField
            key={key}
            label={label}
            quantity="length"
            step={key === 'depthMm' || key === 'toleranceMm' ? 0.1 : 1}
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
        <MeasureField
          label="Banks, run per rise"
          quantity="number"
          step={0.1}
          value={standard.bankSlope}
          validate={validate('bankSlope')}
          onCommit={(value) => edit('bankSlope', value)}
        />
        <MeasureField
          label="Edge is long"
          quantity="length"
          step={1}
          value={standard.edgeMm}
          validate={validate('edgeMm')}
          onCommit={(value) => edit('edgeMm', value)}
        />
      </div>
      {Math.abs(standard.levelMm - desk.set.data.levelMm) > 0.05 && (
        <p className={own.level}>
          {`It is agreed for a level of ${formatMeasure(standard.levelMm, 'length', units)}; the set stands at ${formatMeasure(desk.set.data.levelMm, 'length', units)}. `}
          <button
            type="button"
            className={own.take}
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
          </button>
        </p>
      )}
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
        <button
          type="button"
          className={own.remove}
          onClick={() =>
            put(
              (set) => ({ ...set, standards: (set.standards ?? []).filter(({ id }) => id !== standard.id) }),
              `Remove ${standard.name}`,
            )
          }
        >
          {`Remove ${standard.name}`}
        </button>
      </p>
    </details>
  );
}

/** The standard as its female gauge shows it, level and all. */
function GaugePicture({ standard }: { standard: EdgeStandard }) {
  const { path, widthMm, heightMm } = gaugeDrawing(standard, 'female', 0);
  const level = heightMm - standard.levelMm;
  const { portMm, widthMm: water } = standard;
  return (
    <svg
      className={own.picture}
      viewBox={`-2 ${heightMm - standard.bankMm - 6} ${widthMm + 4} ${standard.bankMm + 8}`}
      role="img"
      aria-label={`${standard.name}: water ${water} mm wide and ${standard.depthMm} mm deep`}
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
