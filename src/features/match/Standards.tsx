'use client';

import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import { useState } from 'react';
import type { EdgeName, PieceDesign } from '@/core/bed/schema';
import type { WaterSet } from '@/core/records/schema';
import { waterSetSchema } from '@/core/records/schema';
import { complaintAt, replaceAt } from '@/core/records/replaceAt';
import { gaugeSvg } from '@/core/formats/gauge';
import type { MatchEdge, MatchSet } from '@/core/seams/matchSet';
import { standardFrom } from '@/core/seams/seamEdge';
import type { EdgeStandard } from '@/core/bed/edgeStandardSchema';
import { SEAM_LIMITS, seamLimitsSchema, type SeamLimits } from '@/core/seams/schema';
import { formatMeasure } from '@/core/units/formatMeasure';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { WordField } from '@/ui/measure/WordField';
import { saveFile } from '@/ui/saveFile';
import { useDesk } from '../desk/DeskContext';
import styles from './MatchStage.module.css';

const FIELDS = [
  { key: 'portMm', label: 'Port centre from the left' }, { key: 'widthMm', label: 'Width at the level' }, { key: 'depthMm', label: 'Depth' },
  { key: 'bankMm', label: 'Bank height' }, { key: 'levelMm', label: 'Level' }, { key: 'toleranceMm', label: 'May be off by' },
] as const;
const SECTIONS = [{ value: 'trapezoid', label: 'Flat floor, sloping banks' }, { value: 'bowl', label: 'Bowl' }, { value: 'v', label: 'V' }] as const;

/** The set's edge standards: taken from an edge or typed, given to edges, departures flagged, gauges to cut by. */
export function Standards({ match }: { match: MatchSet | null }) {
  const { desk, door, shapeDesign } = useDesk();
  const units = useUnits();
  const { data } = desk.set;
  const standards = data.standards ?? [];
  const put = (change: (set: WaterSet) => WaterSet, label: string): void => void door.run(({ set }) => ({ do: 'put', kind: 'set', id: set.id, version: set.version, data: change(set.data), label }), label);
  const take = (edge: MatchEdge): void =>
    put((set) => {
      const known = set.standards ?? [];
      let number = known.length + 1;
      while (known.some(({ id }) => id === `standard-${number}`)) number++;
      return { ...set, standards: [...known, standardFrom(edge.heightMm, edge.lengthMm, edge.levelMm[1], `${edge.piece} ${edge.edge}`.slice(0, 40), `standard-${number}`)] };
    }, `Take a standard from ${edge.piece} ${edge.edge}`);
  const give = (edge: MatchEdge, standard: string): void => shapeDesign(edge.designId, (newest) => ({ ...newest, edgeStandards: withStandard(newest.edgeStandards, edge.edge, standard) }), `Give ${edge.piece} ${edge.edge} a standard`);
  // Copies that were measured stand beside their design; one of each edge is enough here.
  const edges = (match?.edges ?? []).filter(({ designId, edge }, i, all) => all.findIndex((other) => other.designId === designId && other.edge === edge) === i);
  const sources = (match?.edges ?? []).filter((edge) => edge.measured || edges.includes(edge));
  return (
    <section aria-label="Edge standards">
      <h2 className={styles.heading}>Edge standards</h2>
      {standards.length === 0 && <p className={styles.small}>An agreed profile for edges that must meet. Take one from an edge that is right, then give it to the others: what departs from it is flagged.</p>}
      {standards.map((standard, index) => (
        <OneStandard key={standard.id} standard={standard} index={index} put={put} />
      ))}
      <Limits put={put} />
      <label className={styles.filter}>
        Take one from{' '}
        <select value="" onChange={(event) => take(sources[Number(event.target.value)]!)}>
          <option value="" disabled>
            an edge…
          </option>
          {sources.map((edge, i) => (
            <option key={`${edge.piece}${edge.edge}`} value={i}>{`${edge.piece} ${edge.edge}${edge.measured ? ', measured' : edge.wet ? '' : ', dry'}`}</option>
          ))}
        </select>
      </label>
      {standards.length > 0 && (
        <ul className={styles.given}>
          {edges.map((edge) => {
            const design = desk.designs.find(({ id }) => id === edge.designId);
            const id = design?.data.edgeStandards?.[edge.edge] ?? '';
            return (
              <li key={`${edge.piece}${edge.edge}`}>
                <span>{`${edge.piece} ${edge.edge}`}</span>
                <select aria-label={`Standard of ${edge.piece} ${edge.edge}`} value={standards.some((standard) => standard.id === id) ? id : ''} onChange={(event) => give(edge, event.target.value)}>
                  <option value="">none</option>
                  {standards.filter(({ edgeMm }) => Math.abs(edgeMm - edge.lengthMm) <= 1).map((standard) => (
                    <option key={standard.id} value={standard.id}>
                      {standard.name}
                    </option>
                  ))}
                </select>
                {edge.departs && <em>{`${formatMeasure(Math.abs(edge.departs.offMm), 'length', units)} ${edge.departs.offMm > 0 ? 'high' : 'low'}, ${formatMeasure(edge.departs.atMm, 'length', units, 0)} from the left`}</em>}
                {edge.standard && !edge.departs && <em data-good>keeps to it</em>}
              </li>
            );
          })}
        </ul>
      )}
    </section>
  );
}

const withStandard = (given: PieceDesign['edgeStandards'], edge: EdgeName, id: string): PieceDesign['edgeStandards'] => {
  const others = Object.fromEntries(Object.entries(given ?? {}).filter(([name]) => name !== edge));
  return id === '' ? others : { ...others, [edge]: id };
};

const LIMITS = [{ key: 'stepMm', label: 'Step', quantity: 'length', step: 0.1 }, { key: 'gapMm', label: 'Gap of the beds', quantity: 'length', step: 0.1 }, { key: 'deltaE', label: 'Colour difference', quantity: 'number', step: 0.5 }] as const;

/** Up to where a seam of this set closes, and up to where it passes at arm's length. */
function Limits({ put }: { put: (change: (set: WaterSet) => WaterSet, label: string) => void }) {
  const { desk } = useDesk();
  const limits = desk.set.data.seamLimits ?? SEAM_LIMITS;
  const change = (key: keyof SeamLimits, i: number, value: number): SeamLimits => ({ ...limits, [key]: i === 0 ? [value, limits[key][1]] : [limits[key][0], value] });
  return (
    <details className={styles.standard}>
      <summary>What closes, what passes</summary>
      <div className={styles.fields}>
        {LIMITS.flatMap(({ key, label, quantity, step }) =>
          ['closes', 'passes'].map((word, i) => (
            <MeasureField key={`${key}${word}`} label={`${label}, ${word} to`} quantity={quantity} step={step} value={limits[key][i]!} validate={(value) => seamLimitsSchema.safeParse(change(key, i, value)).error?.issues[0]?.message ?? null} onCommit={(value) => put((set) => ({ ...set, seamLimits: change(key, i, value) }), `Change what ${word}`)} />
          )),
        )}
      </div>
    </details>
  );
}

function OneStandard({ standard, index, put }: { standard: EdgeStandard; index: number; put: (change: (set: WaterSet) => WaterSet, label: string) => void }) {
  const { desk } = useDesk();
  const at = (key: string): (string | number)[] => ['standards', index, key];
  const edit = (key: string, value: unknown): void => put((set) => replaceAt(set, at(key), value), `Change ${standard.name}`);
  const validate = (key: string) => (value: unknown): string | null => complaintAt(waterSetSchema, desk.set.data, at(key), value);
  const [kerfMm, setKerfMm] = useState(0.1);
  const gauge = (side: 'male' | 'female'): void => saveFile(`${standard.name.replace(/[^\w-]+/g, '-')}-${side}.svg`, gaugeSvg(standard, side, kerfMm), 'image/svg+xml');
  return (
    <details className={styles.standard}>
      <summary>{standard.name}</summary>
      <div className={styles.fields}>
        <WordField label="Name" value={standard.name} validate={validate('name')} onCommit={(value) => edit('name', value)} />
        {FIELDS.map(({ key, label }) => (
          <MeasureField key={key} label={label} quantity="length" step={key === 'depthMm' || key === 'toleranceMm' ? 0.1 : 1} value={standard[key]} validate={validate(key)} onCommit={(value) => edit(key, value)} />
        ))}
        <ChoiceField label="Section" value={standard.section} choices={SECTIONS} onCommit={(value) => edit('section', value)} />
        <MeasureField label="Banks, run per rise" quantity="number" step={0.1} value={standard.bankSlope} validate={validate('bankSlope')} onCommit={(value) => edit('bankSlope', value)} />
        <MeasureField label="The gauge’s cut is wide" quantity="length" step={0.05} value={kerfMm} validate={(value) => (value < 0 || value > 3 ? 'Between 0 and 3 mm' : null)} onCommit={setKerfMm} />
      </div>
      <p className={styles.small}>
        Cutting gauge at 1:1:{' '}
        <Button size="small" onClick={() => gauge('male')}>
          male, SVG
        </Button>{' '}
        <Button size="small" onClick={() => gauge('female')}>
          female, SVG
        </Button>
        <IconButton size="small" aria-label={`Remove ${standard.name}`} title={`Remove ${standard.name}`} onClick={() => put((set) => ({ ...set, standards: (set.standards ?? []).filter(({ id }) => id !== standard.id) }), `Remove ${standard.name}`)}>
          <svg width="14" height="14" viewBox="0 0 14 14" stroke="currentColor" strokeWidth="1.8" strokeLinecap="round" aria-hidden>
            <path d="M2 7h10" />
          </svg>
        </IconButton>
      </p>
    </details>
  );
}
