'use client';

import type { MatchSet } from '@/core/seams/matchSet';
import type { SeamLimits } from '@/core/model/seamSchema';
import { SEAM_STEP_MM } from '@/core/seams/seamEdge';
import type { Explanation } from '@/core/plan';
import { formatMeasure, measureText } from '@/core/units/formatMeasure';
import { useUnits } from '@/ui/measure/UnitsContext';
import { GRADE_WORDS } from '@/ui/mark/GradeMark';
import { Reading, Readings } from '@/ui/reading/Reading';
import type { MatchSeam } from '@/core/seams/matchTypes';

/** The figures of one seam, each with its grade, with how it came about. */
export function SeamFigures({ seam, match, limits }: { seam: MatchSeam; match: MatchSet; limits: SeamLimits }) {
  const units = useUnits();
  const mm = (value: number, decimals?: number): string => formatMeasure(value, 'length', units, decimals);
  const explain = (
    title: string,
    formula: string,
    [closes, passes]: readonly [number, number],
    inputs: Explanation['inputs'],
    say: (value: number) => string,
  ): Explanation => ({
    title,
    formula,
    inputs: [
      ...inputs,
      { label: 'Closes up to', value: say(closes) },
      { label: 'Passes at arm’s length up to', value: say(passes) },
    ],
    assumptions: [
      'Both pieces stand on one level table, by their undersides.',
      match.edges[seam.a]!.measured || match.edges[seam.b]!.measured
        ? 'Measured edges stand in for drawn ones.'
        : 'The edges are as drawn; measure them to know.',
    ],
    estimate: !(match.edges[seam.a]!.measured && match.edges[seam.b]!.measured),
  });
  const [a, b] = [match.edges[seam.a]!, match.edges[seam.b]!];
  const plain = (value: number): string => value.toFixed(1);
  return (
    <Readings>
      {seam.stepMm !== null && (
        <Reading
          label="Step"
          {...measureText(Math.abs(seam.stepMm), 'length', units)}
          note={`${GRADE_WORDS[seam.grades.step]}${Math.abs(seam.stepMm) > 0.05 ? `; ${seam.stepMm > 0 ? a.piece : b.piece} stands higher, ${mm(seam.stepAtMm, 0)} from the left` : ''}`}
          explain={() =>
            explain(
              'Step',
              'The largest difference of the two levels where both are wet.',
              limits.stepMm,
              [
                { label: a.piece, value: a.levelMm.map((level) => mm(level)).join(', ') },
                {
                  label: b.piece,
                  value: [...b.levelMm]
                    .reverse()
                    .map((level) => mm(level))
                    .join(', '),
                },
              ],
              mm,
            )
          }
        />
      )}
      <Reading
        label="Gap of the beds"
        {...measureText(seam.gapMm, 'length', units)}
        note={`${GRADE_WORDS[seam.grades.gap]}; ${mm(seam.gapRmsMm)} on the whole`}
        explain={() =>
          explain(
            'Gap of the beds',
            'The largest difference of the two beds where either is under water.',
            limits.gapMm,
            [
              { label: 'Where', value: `${mm(seam.gapAtMm, 0)} from the left` },
              { label: 'Root mean square', value: mm(seam.gapRmsMm) },
            ],
            mm,
          )
        }
      />
      <Reading
        label="Banks lie apart"
        {...measureText(seam.bankOffsetMm, 'length', units)}
        note={`${Math.round(seam.wetOverlap * 100)} % of the water meets water`}
        explain={() => banks(seam, mm)}
      />
      <Reading
        label="Colour"
        digits={seam.deltaE.toFixed(1)}
        note={GRADE_WORDS[seam.grades.colour]}
        explain={() =>
          explain(
            'Colour',
            'CIEDE2000 between the predicted colours of the deepest water on both sides.',
            limits.deltaE,
            [],
            plain,
          )
        }
      />
    </Readings>
  );
}

/** How the banks' figure came about; it has no grade of its own: where banks lie apart, the beds do. */
const banks = ({ wetOverlap }: MatchSeam, mm: (value: number, decimals?: number) => string): Explanation => ({
  title: 'Banks lie apart',
  formula: 'The larger of two distances: between both waterlines at the left, and between both at the right.',
  inputs: [
    { label: 'Both are wet along', value: `${Math.round(wetOverlap * 100)} % of where either is` },
    { label: 'Read every', value: mm(SEAM_STEP_MM) },
  ],
  assumptions: ['It has no grade of its own: where banks lie apart the beds do, too.'],
  estimate: false,
});
