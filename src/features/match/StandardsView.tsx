'use client';

import Button from '@mui/material/Button';
import Link from 'next/link';
import { useState } from 'react';
import { pieceKey } from '@/core/model/pieceRef';
import type { WaterSet } from '@/core/records/recordSchemas';
import { replaceAt } from '@/core/records/replaceAt';
import { DEFAULT_KERF_MM, gaugeDrawing, gaugeStl, gaugeSvg, GAUGE_SIDES, type GaugeSide } from '@/core/formats/gauge';
import type { MatchSet } from '@/core/seams/matchSet';
import { standardFrom } from '@/core/seams/seamEdge';
import { edgeStandardSchema, type EdgeStandard } from '@/core/model/edgeStandardSchema';
import { SEAM_LIMITS, seamLimitsSchema, type SeamLimits } from '@/core/model/seamSchema';
import { formatMeasure, type UnitPreferences } from '@/core/units/formatMeasure';
import { Fold } from '@/ui/controls/Fold';
import { MenuButton } from '@/ui/controls/MenuButton';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { WordField } from '@/ui/measure/WordField';
import { saveFile } from '@/ui/saveFile';
import { asSeen } from '@/core/records/pieceMeasures';
import { useDesk } from '../desk/DeskContext';
import styles from './MatchStage.module.css';
import own from './StandardsView.module.css';
import type { MatchEdge } from '@/core/seams/matchTypes';

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
  { value: 'bowl', label: 'Bowl, a parabola' },
  { value: 'v', label: 'V' },
] as const;

/** The set's edge standards: taken from an edge or typed, given to edges, departures flagged, gauges to cut by. */
export function StandardsView({ match }: { match: MatchSet | null }) {
  const { desk, edits, changeSet: put } = useDesk();
  const { data } = desk.set;
  const standards = data.standards ?? [];
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
  const give = (to: readonly MatchEdge[], standardId: string): void => {
    const standard = standards.find(({ id }) => id === standardId);
    const label =
      to.length === 1
        ? `Give ${to[0]!.piece} ${to[0]!.edge} a standard`
        : `Give ${to.length} edges ${standard?.name ?? 'no standard'}`;
    void edits.run(({ designs }) => {
      const edges = to.flatMap(({ designId, edge }) => {
        const design = designs.find(({ id }) => id === designId);
        return design ? [{ designId, version: design.version, edge, standardId: standardId || null }] : [];
      });
      return { do: 'give', setId: desk.set.id, label: label.slice(0, 80), edges };
    }, label);
  };
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
          <OneStandard
            key={standard.id}
            standard={standard}
            index={index}
            open={index === added}
            put={put}
            edges={edges}
            give={give}
          />
        ))}
        {standards.length < 12 && (
          <div className={own.add}>
            <MenuButton
              label="Take one from"
              choices={sources.map((edge) => ({
                key: `${pieceKey(edge)} ${edge.edge}`,
                label: `${edge.piece} ${edge.edge}${edge.measured ? ', measured' : edge.wet ? '' : ', dry'}`,
                onPick: () => take(edge),
              }))}
            />
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
            {edges.map((edge) => (
              <Keeper
                key={`${edge.designId} ${edge.edge}`}
                edge={edge}
                all={(match?.edges ?? []).filter(
                  ({ designId, edge: name }) => designId === edge.designId && name === edge.edge,
                )}
                standards={standards}
                give={give}
              />
            ))}
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

interface KeeperProps {
  edge: MatchEdge;
  /** The edge as it is on the design and on each copy that was measured. */
  all: readonly MatchEdge[];
  standards: readonly EdgeStandard[];
  give: (to: readonly MatchEdge[], standardId: string) => void;
}

const fits = (standard: EdgeStandard, edge: MatchEdge): boolean => Math.abs(standard.edgeMm - edge.lengthMm) <= 1;

/** One edge: which standard it was given, and each piece of it that departs, with what to do about it. */
function Keeper({ edge, all, standards, give }: KeeperProps) {
  const { desk, edits } = useDesk();
  const units = useUnits();
  const design = desk.designs.find(({ id }) => id === edge.designId);
  const id = design?.data.edgeStandards?.[edge.edge] ?? '';
  const name = `${design?.data.tag ?? edge.piece} ${edge.edge}`;
  const off = all.filter(({ departs }) => departs);
  const forget = ({ designId, copy, piece }: MatchEdge): void =>
    void edits.run(
      (view) => ({
        do: 'measure',
        setId: desk.set.id,
        label: `Forget the readings of ${piece} ${edge.edge}`.slice(0, 80),
        pieces: asSeen(view, [{ designId, copy: copy!, edges: { [edge.edge]: { bed: [], levels: null } } }]),
      }),
      'Readings forgotten',
    );
  return (
    <li>
      <span>{name}</span>
      <ChoiceField
        bare
        label={`Standard of ${name}`}
        value={standards.some((standard) => standard.id === id) ? id : ''}
        choices={[
          { value: '', label: 'none' },
          ...standards.map((standard) => ({
            value: standard.id,
            disabled: !fits(standard, edge),
            label: fits(standard, edge)
              ? standard.name
              : `${standard.name}, for edges of ${formatMeasure(standard.edgeMm, 'length', units, 0)}`,
          })),
        ]}
        onCommit={(standardId) => give([edge], standardId)}
      />
      {off.map((piece) => (
        <em key={pieceKey(piece)}>
          {departureWords(piece, units)}{' '}
          {piece.measured && piece.copy !== null && (
            <>
              <Link href={`/sets/${desk.set.id}/match?show=measure&piece=${piece.designId}`}>Measure it again</Link>{' '}
              <Button size="small" variant="text" onClick={() => forget(piece)}>
                Forget its readings
              </Button>
            </>
          )}
        </em>
      ))}
      {off.length === 0 && edge.standard && <em data-good>keeps to it</em>}
    </li>
  );
}

function departureWords({ departs, measured, copy, drawnTo, piece }: MatchEdge, units: UnitPreferences): string {
  const { offMm, atMm } = departs!;
  const far = formatMeasure(Math.abs(offMm), 'length', units);
  const where = formatMeasure(atMm, 'length', units, 0);
  return `${copy === null ? '' : `${piece}: `}${measured ? 'Measured' : 'Carved'} ${far} ${offMm > 0 ? 'high' : 'low'}, ${where} from the left${drawnTo && !measured ? '; drawn to it all the same' : ''}`;
}

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
    <Fold summary="What closes, what passes">
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
    </Fold>
  );
}

function OneStandard({
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
