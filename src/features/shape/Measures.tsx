'use client';

import { arrayMove } from '@dnd-kit/sortable';
import Button from '@mui/material/Button';
import { checkDesign } from '@/core/bed/checkDesign';
import { DAM_FACTS, DAM_METHODS } from '@/core/model/damMethods';
import { damRuns, DEFAULT_DAM } from '@/core/bed/dams';
import { outlineEdges } from '@/core/bed/outline';
import { madeByOf } from '@/core/bed/measured';
import {
  FEATURE_NAMES,
  MADE_BY,
  pieceDesignSchema,
  type EdgeName,
  type FeatureKind,
  type PieceDesign,
} from '@/core/model/designSchema';
import { newFeature } from '@/core/bed/starters';
import { transformDesign, type Transform } from '@/core/bed/transform';
import type { Problem } from '@/core/model/problem';
import { complaintAt, replaceAt, type Path } from '@/core/records/replaceAt';
import type { Stored } from '@/core/model/stored';
import { formatMeasure } from '@/core/units/formatMeasure';
import { MenuButton } from '@/ui/controls/MenuButton';
import { controlIn, focusSoon } from '@/ui/focusSoon';
import { SortList } from '@/ui/controls/SortList';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { Tick } from '@/ui/controls/Tick';
import { WordField } from '@/ui/measure/WordField';
import { useAwake } from '@/ui/useAwake';
import { useDesk } from '../desk/DeskContext';
import { pictureBed } from '../desk/pictures';
import type { DesignEditing } from './editing';
import { FeatureFields } from './FeatureFields';
import { OutlineFields } from './OutlineFields';
import { Paint } from './Paint';
import styles from './Measures.module.css';

/** Everything about a design that can be typed: its name and size, and the features of its bed in order. */
export function Measures({ design }: { design: Stored<PieceDesign> }) {
  const { desk, edits, shapeDesign, select } = useDesk();
  const awake = useAwake();
  const units = useUnits();
  const { data } = design;
  const levelMm = desk.set.data.levelMm;
  const problems = checkDesign(data, levelMm);
  const change = (make: (data: PieceDesign) => PieceDesign, label: string): void => shapeDesign(design.id, make, label);
  const put = (path: Path, value: unknown, label: string): void =>
    change((newest) => replaceAt(newest, path, value), label);
  const validate =
    (path: Path) =>
    (value: unknown): string | null =>
      complaintAt(pieceDesignSchema, data, path, value);
  const errorAt = (path: Path): string | null =>
    problems.find((problem) => problem.severity === 'stop' && samePath(problem, path))?.message ?? null;
  const measure = (label: string, path: Path, value: number, step = 1): React.ReactNode => (
    <MeasureField
      label={label}
      quantity="length"
      value={value}
      step={step}
      validate={validate(path)}
      error={errorAt(path)}
      onCommit={(next) => put(path, next, `Change ${label.toLowerCase()} of ${data.tag}`)}
    />
  );
  const addFeature = (kind: FeatureKind): void => {
    const feature = newFeature(kind, data, desk.shelf.settings.data.units);
    change(
      (newest) => ({ ...newest, features: [...newest.features, feature] }),
      `Add ${FEATURE_NAMES[kind].toLowerCase()} to ${data.tag}`,
    );
    focusSoon(() => controlIn(document.querySelector(`[data-feature="${feature.id}"] [data-fields]`)));
  };
  const remove = (): void => {
    void edits.run(({ designs }) => removeCommand(designs, design.id), `Removed ${data.tag}`);
    focusSoon(() => controlIn(document.querySelector('[aria-label="Designs"]')));
  };
  const makeVariant = async (transform: Transform | null): Promise<void> => {
    const words = transform ? `variant, ${transform}` : 'variant';
    const outcome = await edits.run(
      ({ designs }) => ({
        do: 'add',
        kind: 'design',
        setId: desk.set.id,
        data: copyOf(transform ? transformDesign(data, transform) : data, designs),
        label: `Make a ${words}, of ${data.tag}`,
      }),
      `Made a ${words}, of ${data.tag}`,
    );
    if (!outcome.ok || !outcome.id) return;
    select(outcome.id);
    focusSoon(() => document.querySelector<HTMLElement>(`[data-id="${outcome.id}"]`));
  };
  const editing: DesignEditing = { design: data, errorAt, validate, put, change };
  return (
    <div className={styles.measures}>
      <div className={styles.grid}>
        <WordField
          label="Tag"
          value={data.tag}
          onCommit={(value) => put(['tag'], value, `Change the tag of ${data.tag}`)}
          validate={(tag) => validate(['tag'])(tag) ?? takenTag(desk.designs, design.id, tag)}
        />
        <MeasureField
          label="Copies"
          quantity="number"
          commitsOnLeaving
          value={data.copies}
          validate={validate(['copies'])}
          onCommit={(value) => put(['copies'], value, `Change the copies of ${data.tag}`)}
        />
        <div className={styles.wide}>
          <WordField
            label="Name"
            value={data.name}
            onCommit={(value) => put(['name'], value, `Rename ${data.tag}`)}
            validate={validate(['name'])}
          />
        </div>
        <ChoiceField
          label="Kind of piece"
          value={data.kind}
          choices={KINDS}
          onCommit={(kind) => put(['kind'], kind, `Change what ${data.tag} is`)}
        />
        <OutlineFields editing={editing} />
        {measure('Height of the land', ['landMm'], data.landMm, 0.5)}
        {measure('Grains of the bed (0: smooth)', ['grainMm'], data.grainMm ?? 0, 0.1)}
        <ChoiceField
          label="The bed is made"
          value={madeByOf(data)}
          choices={MADE}
          onCommit={(madeBy) => put(['madeBy'], madeBy, `Change how ${data.tag} is made`)}
        />
        <div className={styles.wide}>
          <Tick
            label="A start for pieces of any set"
            checked={data.isStart ?? false}
            onChange={(on) =>
              change(
                ({ isStart: _, ...newest }) => ({ ...newest, ...(on && { isStart: true }) }),
                on ? `Offer ${data.tag} as a start` : `Offer ${data.tag} as a start no more`,
              )
            }
          />
        </div>
        {outlineEdges(data.outline).length > 1 && (
          <ChoiceField
            label="Its water reads"
            value={data.flowsFrom ?? ''}
            choices={[
              { value: '', label: 'from both ends' },
              ...outlineEdges(data.outline).map((edge) => ({ value: edge, label: `in at the ${edge} only` })),
            ]}
            onCommit={(edge) =>
              change(
                ({ flowsFrom: _, ...newest }) => (edge === '' ? newest : { ...newest, flowsFrom: edge as EdgeName }),
                `Change which way ${data.tag} reads`,
              )
            }
          />
        )}
        <Paint design={design} />
      </div>
      {data.drawnLevelMm !== levelMm && (
        <p className={styles.drawn}>
          Drawn for a level of {formatMeasure(data.drawnLevelMm, 'length', units)}; the set now stands at{' '}
          {formatMeasure(levelMm, 'length', units)}.{' '}
          <Button size="small" onClick={() => put(['drawnLevelMm'], levelMm, `Redraw ${data.tag} for the level`)}>
            Redraw the bed for it
          </Button>
        </p>
      )}
      <SortList
        items={data.features.map(({ id, kind }, i) => ({ id, name: `${FEATURE_NAMES[kind].toLowerCase()} ${i + 1}` }))}
        onMove={(id, to) =>
          change(
            (newest) => ({
              ...newest,
              features: arrayMove(
                newest.features,
                newest.features.findIndex((feature) => feature.id === id),
                to,
              ),
            }),
            `Move ${FEATURE_NAMES[data.features.find((feature) => feature.id === id)!.kind].toLowerCase()} of ${data.tag}`,
          )
        }
        part={(index, grip) => (
          <FeatureFields feature={data.features[index]!} index={index} editing={editing} grip={grip} />
        )}
      />
      {awake && <DamChoices design={data} levelMm={levelMm} put={put} />}
      <div className={styles.add} data-add-feature>
        <MenuButton
          label="Add to the bed"
          choices={(Object.keys(FEATURE_NAMES) as FeatureKind[])
            .filter((kind) => canHold(kind, data))
            .map((kind) => ({ key: kind, label: FEATURE_NAMES[kind], onPick: () => addFeature(kind) }))}
        />
      </div>
      <div className={styles.foot}>
        <MenuButton
          label="Make a variant"
          name={`Make a variant of ${data.tag}`}
          choices={VARIANTS.map(({ transform, label }) => ({
            key: label,
            label,
            onPick: () => void makeVariant(transform),
          }))}
        />
        <Button size="small" variant="text" onClick={remove}>
          Remove {data.tag}
        </Button>
      </div>
    </div>
  );
}

/** A channel or fork needs straight sides for its ports; a scan comes from a file. */
const canHold = (kind: FeatureKind, { outline }: PieceDesign): boolean =>
  kind !== 'scan' && ((kind !== 'channel' && kind !== 'fork') || outlineEdges(outline).length > 1);

/** Another design from this one: the same again, mirrored, or turned. */
const VARIANTS: readonly { transform: Transform | null; label: string }[] = [
  { transform: null, label: 'the same again' },
  { transform: 'mirrored', label: 'mirrored, left for right' },
  { transform: 'quarter turn', label: 'turned a quarter, anticlockwise' },
  { transform: 'half turn', label: 'turned by half' },
];

const MADE = MADE_BY.map((value) => ({ value, label: value === 'scanned' ? 'already; it was scanned' : value }));
const KINDS = [
  { value: 'tile', label: 'Tile' },
  { value: 'board', label: 'Board' },
  { value: 'base', label: 'Base' },
] as const;

const samePath = (problem: Problem, path: Path): boolean => problem.path.join('.') === path.join('.');
const takenTag = (designs: readonly Stored<PieceDesign>[], id: string, tag: string): string | null =>
  designs.some((other) => other.id !== id && other.data.tag === tag.trim()) ? 'Another design has this tag' : null;

function copyOf(data: PieceDesign, designs: readonly Stored<PieceDesign>[]): PieceDesign {
  const taken = designs.map((stored) => stored.data.tag);
  let number = 2;
  while (taken.includes(`${data.tag}.${number}`)) number++;
  return { ...data, tag: `${data.tag}.${number}`.slice(-16), name: data.name };
}

function removeCommand(
  designs: readonly Stored<PieceDesign>[],
  id: string,
): { do: 'remove'; kind: 'design'; id: string; version: number } | null {
  const stored = designs.find((design) => design.id === id);
  return stored ? { do: 'remove', kind: 'design', id, version: stored.version } : null;
}

/** How each open edge is closed. */
function DamChoices({ design, levelMm, put }: { design: PieceDesign; levelMm: number; put: DesignEditing['put'] }) {
  const edges = [...new Set(damRuns(pictureBed(design, true).profiles, levelMm, design.dams).map(({ edge }) => edge))];
  if (edges.length === 0) return null;
  return (
    <fieldset className={styles.feature}>
      <legend>Dams</legend>
      <div className={styles.grid}>
        {edges.map((edge) => (
          <ChoiceField
            key={edge}
            label={edge === 'rim' ? 'Round the rim' : `${edge[0]!.toUpperCase()}${edge.slice(1)} edge`}
            value={design.dams[edge] ?? DEFAULT_DAM}
            choices={DAM_METHODS.map((method) => ({
              value: method,
              label: method === 'none' ? 'none, surface tension' : method,
            }))}
            hint={DAM_FACTS[design.dams[edge] ?? DEFAULT_DAM].advice}
            onCommit={(method) => put(['dams', edge], method, `Change the ${edge} dam of ${design.tag}`)}
          />
        ))}
      </div>
    </fieldset>
  );
}
