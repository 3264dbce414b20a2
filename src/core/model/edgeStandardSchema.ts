import { reference } from './reference';
import { z } from 'zod';
import { sectionSchema } from './featureSchema';
import { finite } from './outlineSchema';

/** A length in mm within bounds, told in words. */
export const mm = (least: number, most: number): z.ZodNumber =>
  z.number({ error: 'Type a number' }).min(least, `At least ${least} mm`).max(most, `At most ${most} mm`);

/** The agreed profile of an edge: where the port is, how wide and deep, how high the bank. `widthMm` 0 is a dry edge. */
export const edgeStandardSchema = z
  .object({
    id: reference('standard'),
    name: z.string().trim().min(1, 'Give it a name, for example creek mouth').max(40, 'At most 40 characters'),
    edgeMm: mm(1, 3000),
    /** The port's centre, from the left end of the edge as seen from the middle of the piece. */
    portMm: mm(0, 3000),
    widthMm: mm(0, 3000),
    depthMm: mm(0, 200),
    section: sectionSchema,
    bankSlope: finite.min(0, 'A slope cannot be negative').max(200, 'At most 1 in 200'),
    levelMm: mm(0.1, 300),
    bankMm: mm(0.1, 300),
    /** How far a bed may lie off it before it is flagged. */
    toleranceMm: mm(0.05, 20),
    /** Over what length the bed of a piece runs from the standard at its edge to its own; 0: it is compared only. */
    blendMm: mm(0, 200).default(12),
    /** For its gauges: how wide the cut is, and what stands on them instead of the name. */
    kerfMm: mm(0, 3).optional(),
    gaugeLabel: z.string().trim().max(40, 'At most 40 characters').optional(),
  })
  .superRefine(({ edgeMm, portMm, widthMm, depthMm, section, bankSlope, levelMm, bankMm }, context) => {
    const complain = (path: string, message: string): void =>
      context.addIssue({ code: 'custom', path: [path], message });
    if (widthMm === 0) return;
    if (portMm - widthMm / 2 < -1e-9 || portMm + widthMm / 2 > edgeMm + 1e-9)
      complain(
        'portMm',
        `Its water reaches past the end of the edge: keep the centre between ${widthMm / 2} and ${edgeMm - widthMm / 2} mm`,
      );
    if (section === 'trapezoid' && bankSlope * depthMm * 2 > widthMm + 1e-9)
      complain(
        'depthMm',
        `The two banks meet before the bed is reached: at most ${(widthMm / 2 / bankSlope).toFixed(1)} mm deep`,
      );
    if (depthMm >= levelMm) complain('depthMm', 'The bed would come out through the underside');
    if (bankMm < levelMm) complain('bankMm', 'The bank must stand above the level');
  });
export type EdgeStandard = z.infer<typeof edgeStandardSchema>;
