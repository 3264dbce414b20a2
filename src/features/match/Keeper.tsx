'use client';

import Button from '@mui/material/Button';
import Link from 'next/link';
import { pieceKey } from '@/core/model/pieceRef';
import type { EdgeStandard } from '@/core/model/edgeStandardSchema';
import { formatMeasure, type UnitPreferences } from '@/core/units/formatMeasure';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { asSeen } from '@/core/records/pieceMeasures';
import { useDesk } from '../desk/DeskContext';
import type { MatchEdge } from '@/core/seams/matchTypes';

export interface KeeperProps {
  edge: MatchEdge;
  /** The edge as it is on the design and on each copy that was measured. */
  all: readonly MatchEdge[];
  standards: readonly EdgeStandard[];
  give: (to: readonly MatchEdge[], standardId: string) => void;
}

/** Whether a standard is of the length of an edge. */
export const fits = (standard: EdgeStandard, edge: MatchEdge): boolean =>
  Math.abs(standard.edgeMm - edge.lengthMm) <= 1;

/** One edge: which standard it was given, and each piece of it that departs, with what to do about it. */
export function Keeper({ edge, all, standards, give }: KeeperProps) {
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
