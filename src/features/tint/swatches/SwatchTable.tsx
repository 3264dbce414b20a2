'use client';

import Button from '@mui/material/Button';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import type { Swatch } from '@/core/model/recipeSchema';
import { formatMeasure } from '@/core/units/formatMeasure';
import { Tick } from '@/ui/controls/Tick';
import { useUnits } from '@/ui/measure/UnitsContext';
import { Patch } from './Patch';

interface SwatchTableProps {
  swatches: readonly Swatch[];
  /** How far a swatch is from the fit, CIEDE2000; null for one that is left out. */
  residual: (index: number) => number | null;
  /** The colourant's name, for the labels of edits. */
  name: string;
  keep: (make: (swatches: readonly Swatch[]) => Swatch[], label: string) => void;
}

/** A swatch that is further from the fit than this contradicts the others. */
const CONTRADICTS = 5;

/** Test pours of a colourant, how well each agrees with the fit, and which are kept. */
export function SwatchTable({ swatches, residual, name, keep }: SwatchTableProps) {
  const units = useUnits();
  return (
    <Table aria-label="Swatches">
      <TableHead>
        <TableRow>
          <TableCell>In 100 g</TableCell>
          <TableCell>Deep</TableCell>
          <TableCell>Ground</TableCell>
          <TableCell>Came to</TableCell>
          <TableCell>From the fit</TableCell>
          <TableCell>Kept</TableCell>
        </TableRow>
      </TableHead>
      <TableBody>
        {swatches.map((swatch, i) => {
          const off = residual(i);
          return (
            <TableRow key={i} data-contradicts={(off !== null && off > CONTRADICTS) || undefined}>
              <TableCell>{`${swatch.gramsPer100.toFixed(3)} g`}</TableCell>
              <TableCell>{formatMeasure(swatch.depthMm, 'length', units)}</TableCell>
              <TableCell>
                <Patch colour={swatch.ground} />
              </TableCell>
              <TableCell>
                <Patch colour={swatch.seen} />
              </TableCell>
              <TableCell>
                {off === null ? 'left out' : `ΔE ${off.toFixed(1)}`}
                {off !== null && off > CONTRADICTS && <b> contradicts the others</b>}
              </TableCell>
              <TableCell>
                <Tick
                  label={`Keep swatch ${i + 1}`}
                  bare
                  checked={!swatch.rejected}
                  onChange={(kept) =>
                    keep(
                      (now) =>
                        now.map((other, k) => {
                          if (k !== i) return other;
                          const { rejected: _, ...rest } = other;
                          return kept ? rest : { ...rest, rejected: true };
                        }),
                      kept ? `Keep a swatch of ${name}` : `Leave out a swatch of ${name}`,
                    )
                  }
                />
                <Button
                  variant="text"
                  size="small"
                  aria-label={`Remove swatch ${i + 1}`}
                  onClick={() => keep((now) => now.filter((_, k) => k !== i), `Remove a swatch of ${name}`)}
                >
                  Remove
                </Button>
              </TableCell>
            </TableRow>
          );
        })}
      </TableBody>
    </Table>
  );
}
