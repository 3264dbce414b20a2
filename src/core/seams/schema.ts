import { z } from 'zod';
import { edgeNameSchema, finite } from '../bed/outlineSchema';
import { sectionSchema } from '../bed/featureSchema';

const mm = (least: number, most: number): z.ZodNumber => z.number({ error: 'Type a number' }).min(least, `At least ${least} mm`).max(most, `At most ${most} mm`);

/** The agreed profile of an edge: where the port is, how wide and deep, how high the bank. `widthMm` 0 is a dry edge. */
export const edgeStandardSchema = z
  .object({
    id: z.string().min(1).max(40),
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
  })
  .superRefine(({ edgeMm, portMm, widthMm, depthMm, section, bankSlope, levelMm, bankMm }, context) => {
    const complain = (path: string, message: string): void => context.addIssue({ code: 'custom', path: [path], message });
    if (widthMm === 0) return;
    if (portMm - widthMm / 2 < -1e-9 || portMm + widthMm / 2 > edgeMm + 1e-9) complain('portMm', `Its water reaches past the end of the edge: keep the centre between ${widthMm / 2} and ${edgeMm - widthMm / 2} mm`);
    if (section === 'trapezoid' && bankSlope * depthMm * 2 > widthMm + 1e-9) complain('depthMm', `The two banks meet before the bed is reached: at most ${(widthMm / 2 / bankSlope).toFixed(1)} mm deep`);
    if (depthMm >= levelMm) complain('depthMm', 'The bed would come out through the underside');
    if (bankMm < levelMm) complain('bankMm', 'The bank must stand above the level');
  });
export type EdgeStandard = z.infer<typeof edgeStandardSchema>;

/** Up to where a seam closes, and up to where it passes at arm's length; beyond, it shows. */
export const seamLimitsSchema = z.object({
  stepMm: z.tuple([mm(0, 20), mm(0, 20)]),
  gapMm: z.tuple([mm(0, 50), mm(0, 50)]),
  deltaE: z.tuple([finite.min(0).max(100), finite.min(0).max(100)]),
}).refine(({ stepMm, gapMm, deltaE }) => stepMm[0] <= stepMm[1] && gapMm[0] <= gapMm[1] && deltaE[0] <= deltaE[1], 'What passes must be at least what closes');
export type SeamLimits = z.infer<typeof seamLimitsSchema>;
export const SEAM_LIMITS: SeamLimits = { stepMm: [0.5, 1.6], gapMm: [1, 3], deltaE: [2, 5] };

/** What was measured along one edge of a piece: heights above the underside, places from its west or south end. */
export const measuredEdgeSchema = z.object({
  bed: z.array(z.object({ atMm: mm(0, 3000), heightMm: mm(0, 300) })).max(60, 'At most 60 readings of one edge'),
  /** The water's level at both ends and the middle of the edge, or null before the pour. */
  levels: z.tuple([mm(0, 300), mm(0, 300), mm(0, 300)]).nullable(),
});
export type MeasuredEdge = z.infer<typeof measuredEdgeSchema>;
export const measuredEdgesSchema = z.partialRecord(edgeNameSchema, measuredEdgeSchema);

/** What closes, what passes at arm's length, what shows. */
export const GRADES = ['closes', 'passes', 'shows'] as const;
export type Grade = (typeof GRADES)[number];
