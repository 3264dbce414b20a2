'use client';

import Button from '@mui/material/Button';
import Link from 'next/link';
import { BODY_MATERIALS, BODY_MATERIAL_KEYS, DEFAULT_MATERIAL } from '@/core/model/bodyMaterials';
import { FIRST_MOULD, type Body, type Mould } from '@/core/model/bodySchema';
import { stackMm } from '@/core/body/packing';
import type { PieceDesign } from '@/core/model/designSchema';
import { explainPiece, type Amounts, type AmountsRequest, type PieceFigure, type PiecePlan } from '@/core/plan';
import { complaintAt } from '@/core/records/replaceAt';
import { pieceDesignSchema } from '@/core/model/designSchema';
import type { Stored } from '@/core/model/stored';
import { scaleHints } from '@/core/plan/scaleHints';
import { formatCut, formatMeasure, formatMinutes, measureText } from '@/core/units/formatMeasure';
import type { Quantity } from '@/core/units/quantities';
import { Fold } from '@/ui/controls/Fold';
import { Tick } from '@/ui/controls/Tick';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { Reading, Readings } from '@/ui/reading/Reading';
import { useDesk, useDeskPlan } from '../desk/DeskContext';
import styles from './BenchLevel.module.css';

interface SectionProps {
  design: Stored<PieceDesign>;
  piece: PiecePlan;
  request: AmountsRequest;
  plan: Amounts;
}

const MATERIALS = BODY_MATERIAL_KEYS.map((value) => ({ value, label: BODY_MATERIALS[value].name }));
const FIRST_BODY: Body = { material: DEFAULT_MATERIAL, extrasGrams: 0, sealedBelow: false };

/** What a piece is made of and weighs, how it is stored, the mould it is cast in, and what the scale of the figures says. */
export function BodyAndMould({ design, piece }: Pick<SectionProps, 'design'> & { piece: PiecePlan | undefined }) {
  const { request, plan } = useDeskPlan();
  if (!piece || !request || !plan) return null;
  const props = { design, piece, request, plan };
  return (
    <>
      <BodySection {...props} />
      <MouldSection {...props} />
      <ScaleSection {...props} />
    </>
  );
}

/** A reading of this piece that opens to how it came about. */
function usePieceReading({
  piece,
  request,
  plan,
}: Omit<SectionProps, 'design'>): (
  label: string,
  figure: PieceFigure,
  value: number,
  quantity: Quantity,
  note?: string,
  decimals?: number,
) => React.ReactNode {
  const units = useUnits();
  return (label, figure, value, quantity, note, decimals) => (
    <Reading
      key={figure}
      label={label}
      {...measureText(value, quantity, units, decimals)}
      note={note}
      explain={() => explainPiece(figure, piece, { request, plan, prefs: units })}
    />
  );
}

function BodySection({ design, piece, request, plan }: SectionProps) {
  const { shapeDesign } = useDesk();
  const units = useUnits();
  const reading = usePieceReading({ piece, request, plan });
  const { body } = piece;
  const stated = design.data.body ?? FIRST_BODY;
  const put = (change: Partial<Body>, label: string): void =>
    shapeDesign(
      design.id,
      (newest) => ({ ...newest, body: { ...(newest.body ?? FIRST_BODY), ...change } }),
      `${label} of ${design.data.tag}`,
    );
  const mass = (grams: number): string => formatMeasure(grams, 'mass', units);
  const copies = design.data.copies;
  return (
    <Fold
      summary={`Body: ${BODY_MATERIALS[body.material].name.toLowerCase()}${body.stated ? '' : ', supposed'}, ${mass(body.totalGrams)} finished`}
    >
      <div className={styles.fields}>
        <ChoiceField
          label="Made of"
          value={stated.material}
          choices={MATERIALS}
          hint={body.stated ? undefined : 'supposed until you say'}
          onCommit={(material) => put({ material }, 'Change the material')}
        />
        <MeasureField
          label="Paint, plants, extras"
          quantity="mass"
          value={stated.extrasGrams}
          validate={(value) => complaintAt(pieceDesignSchema, design.data, ['body'], { ...stated, extrasGrams: value })}
          onCommit={(extrasGrams) => put({ extrasGrams }, 'Change the extras')}
        />
        <Tick
          label="Underside sealed too"
          checked={stated.sealedBelow}
          onChange={(sealedBelow) => put({ sealedBelow }, 'Change the sealing')}
        />
      </div>
      <Readings>
        {reading(
          'Weight, finished',
          'weight',
          body.totalGrams,
          'mass',
          `body ${mass(body.bodyGrams)}, water ${mass(body.waterGrams)}${body.debrisGrams > 0 ? `, debris ${mass(body.debrisGrams)}` : ''}${copies > 1 ? `; ${mass(body.totalGrams * copies)} for all ${copies}` : ''}`,
        )}
        {reading(
          'Height',
          'height',
          body.heightMm,
          'length',
          copies > 1
            ? `a stack of ${copies} is ${formatMeasure(stackMm(body.heightMm, copies), 'length', units)}`
            : undefined,
        )}
        {reading(
          'May lift its ends by',
          'bow',
          body.bowMm,
          'length',
          `over ${formatMeasure(body.bowOverMm, 'length', units)}, if nothing holds it down`,
          2,
        )}
        {body.box && (
          <Reading
            label="In a storage box"
            digits={String(body.box.count)}
            unit={body.box.count === 1 ? 'piece' : 'pieces'}
            note={`${body.box.perLayer} in a layer, ${body.box.layers} ${body.box.layers === 1 ? 'layer' : 'layers'}`}
            explain={() => explainPiece('box', piece, { request, plan, prefs: units })}
          />
        )}
        {reading(
          'Flat, it holds without a dam',
          'flat',
          piece.flatMl,
          'volume',
          'a puddle on a flat top of this outline',
        )}
      </Readings>
      {!body.box && (
        <p className={styles.quiet}>
          How many fit your storage box? <Link href="/shelf#workshop">Say its size on the shelf.</Link>
        </p>
      )}
    </Fold>
  );
}

const CASTS = [
  { value: 'piece', label: 'the whole piece' },
  { value: 'water', label: 'its water alone' },
] as const;

function MouldSection({ design, piece, request, plan }: SectionProps) {
  const { shapeDesign } = useDesk();
  const units = useUnits();
  const reading = usePieceReading({ piece, request, plan });
  const { mould } = design.data;
  const { data } = design;
  const change = (next: (now: Mould) => Mould | null, label: string): void =>
    shapeDesign(
      design.id,
      (newest) => ({ ...newest, mould: next(newest.mould ?? FIRST_MOULD) }),
      `${label} of ${data.tag}`,
    );
  const two = piece.twoStage;
  const measure = (label: string, key: 'wallMm' | 'gapMm' | 'floorMm' | 'sheetMm'): React.ReactNode => (
    <MeasureField
      label={label}
      quantity="length"
      value={mould?.[key] ?? 0}
      validate={(value) => complaintAt(pieceDesignSchema, data, ['mould', key], value)}
      onCommit={(value) => change((now) => ({ ...now, [key]: value }), `Change the mould’s ${label.toLowerCase()}`)}
    />
  );
  const plain = (label: string, key: 'cavities' | 'draftDegrees' | 'rubberDensity', step: number): React.ReactNode => (
    <MeasureField
      label={label}
      quantity="number"
      step={step}
      value={mould?.[key] ?? 0}
      validate={(value) => complaintAt(pieceDesignSchema, data, ['mould', key], value)}
      onCommit={(value) => change((now) => ({ ...now, [key]: value }), `Change the mould’s ${label.toLowerCase()}`)}
    />
  );
  return (
    <Fold
      open={Boolean(mould)}
      summary={
        mould && piece.mould
          ? `Mould: ${mould.cavities} ${mould.cavities === 1 ? 'cavity' : 'cavities'}, ${formatMeasure(piece.mould.rubberGrams, 'mass', units)} of rubber`
          : 'Mould: none'
      }
    >
      {!mould && (
        <p className={styles.quiet}>
          Cast in rubber and turned out, instead of carved.{' '}
          <Button size="small" onClick={() => change(() => FIRST_MOULD, 'Plan a mould')}>
            Plan a mould
          </Button>
        </p>
      )}
      {mould && piece.mould && (
        <>
          <div className={styles.fields}>
            <ChoiceField
              label="It casts"
              value={mould.cast}
              choices={CASTS}
              onCommit={(cast) => change((now) => ({ ...now, cast }), 'Change what the mould casts')}
            />
            {plain('Cavities', 'cavities', 1)}
            <ChoiceField
              label="Masters of"
              value={mould.masterMaterial}
              choices={MATERIALS}
              onCommit={(masterMaterial) => change((now) => ({ ...now, masterMaterial }), 'Change the masters')}
            />
            {measure('Rubber at the walls', 'wallMm')}
            {measure('Between cavities', 'gapMm')}
            {measure('Over the masters', 'floorMm')}
            {plain('Draft, degrees', 'draftDegrees', 0.5)}
            {plain('Rubber, g/ml', 'rubberDensity', 0.01)}
            {measure('Sheet for the box', 'sheetMm')}
          </div>
          <Readings>
            {reading(
              'Mould rubber',
              'rubber',
              piece.mould.rubberGrams,
              'mass',
              formatMeasure(piece.mould.rubberMl, 'volume', units),
            )}
            {reading(
              'To pour into a cavity',
              'cast',
              piece.mould.castGrams,
              'mass',
              `${formatMeasure(piece.mould.castMl, 'volume', units)}, ${formatMeasure(piece.mould.draftMl, 'volume', units)} of it by the draft`,
            )}
            {reading(
              'A master would float up by',
              'lift',
              piece.mould.liftGrams,
              'mass',
              piece.mould.liftGrams > 0 ? 'glue its whole foot down' : 'it stays down by itself',
            )}
            <Reading
              label="Box, inside"
              digits={`${formatCut(piece.mould.boxWidthMm, units)} × ${formatCut(piece.mould.boxLengthMm, units)}`}
              note={`sheets: ${piece.mould.sheets.map(({ count, lengthMm, heightMm }) => `${count} of ${formatCut(lengthMm, units)} × ${formatCut(heightMm, units)}`).join(', ')}`}
              explain={() => explainPiece('rubber', piece, { request, plan, prefs: units })}
            />
          </Readings>
          <p className={styles.quiet}>
            Rubber and resin both need gloves, eye protection and air; their own labels and safety data sheets come
            first.
          </p>
          <Button size="small" variant="text" onClick={() => change(() => null, 'Drop the mould')}>
            No mould
          </Button>
        </>
      )}
      {two && (
        <Readings>
          {reading(
            'First fill, a lip below the level',
            'twoStage',
            two.firstMl,
            'volume',
            `then ${formatMeasure(two.secondMl, 'volume', units)} inside the lip of ${formatMeasure(two.lipMm, 'length', units)}. ${two.quicker === 'one fill' ? `One fill and ${formatMinutes(two.sandOnceMinutes)} of sanding is quicker` : `Two fills are quicker at the bench, but wait ${formatMinutes(two.waitMinutes)}`}`,
          )}
        </Readings>
      )}
    </Fold>
  );
}

function ScaleSection({ design, piece, request }: SectionProps) {
  const hints = scaleHints(design.data, piece.water.greatestDepthMm, request.set.figureScaleMm);
  return (
    <Fold summary={`Beside ${request.set.figureScaleMm} mm figures`}>
      <ul className={styles.hints}>
        {hints.map(({ about, words }) => (
          <li key={`${about}${words}`}>{words}</li>
        ))}
      </ul>
    </Fold>
  );
}
