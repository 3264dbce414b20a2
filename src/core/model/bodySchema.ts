import { z } from 'zod';
import { BODY_MATERIAL_KEYS } from './bodyMaterials';

const number = z.number({ error: 'Type a number' });
const mm = (most: number): z.ZodNumber => number.min(0, 'Cannot be negative').max(most, `At most ${most} mm`);

/** What a piece is made of, apart from its water. */
export const bodySchema = z.object({
  material: z.enum(BODY_MATERIAL_KEYS),
  /** Paint, plants, magnets, a base plate. */
  extrasGrams: number.min(0, 'Cannot be negative').max(50_000, 'At most 50 kg'),
  /** True when the underside is sealed like the top, so that it takes up no more water than the other side. */
  sealedBelow: z.boolean(),
});
export type Body = z.infer<typeof bodySchema>;

/** A mould in which pieces (or their water alone) are cast and turned out. */
export const mouldSchema = z.object({
  cast: z.enum(['piece', 'water']),
  cavities: number.int('Type a whole number').min(1, 'At least 1').max(60, 'At most 60'),
  /** Rubber round the cavities, between them, and under them. */
  wallMm: mm(100),
  gapMm: mm(100),
  floorMm: mm(100),
  /** How far the sides lean, so that a casting comes out. */
  draftDegrees: number.min(0, 'Cannot be negative').max(30, 'At most 30°'),
  /** Thickness of the sheet that the box is made of. */
  sheetMm: mm(50),
  rubberDensity: number.min(0.8, 'Between 0.8 and 2 g/ml').max(2, 'Between 0.8 and 2 g/ml'),
  masterMaterial: z.enum(BODY_MATERIAL_KEYS),
});
export type Mould = z.infer<typeof mouldSchema>;

/** A mould to begin with. */
export const FIRST_MOULD: Mould = {
  cast: 'piece',
  cavities: 1,
  wallMm: 10,
  gapMm: 10,
  floorMm: 8,
  draftDegrees: 2,
  sheetMm: 5,
  rubberDensity: 1.15,
  masterMaterial: 'extruded foam',
};

/** A box that pieces are stored or sent in, measured inside. */
export const boxSchema = z.object({
  widthMm: mm(3000).gt(0, 'Must be more than 0'),
  lengthMm: mm(3000).gt(0, 'Must be more than 0'),
  heightMm: mm(3000).gt(0, 'Must be more than 0'),
});
export type Box = z.infer<typeof boxSchema>;
