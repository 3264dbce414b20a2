import { z } from 'zod';

/** What a piece is made of and with, beside its water. */
export const ROLES = ['body', 'sealer', 'glue', 'paint', 'dam', 'varnish', 'plants', 'heat'] as const;
export type Role = (typeof ROLES)[number];

/** What of a material fights with others. */
export const TRAITS = [
  'foam',
  'bead foam',
  'odd foam',
  'paper',
  'thin wood',
  'drinks',
  'holds air',
  'plastic',
  'fibres',
  'solvent',
  'sprayed solvent',
  'superglue',
  'wet',
  'very hot',
  'hot air',
  'flame',
  'never lets go',
  'matt',
  'resin',
  'shrinks',
] as const;
export type Trait = (typeof TRAITS)[number];

export interface Material {
  role: Role;
  name: string;
  traits: readonly Trait[];
}

const material = (role: Role, name: string, ...traits: Trait[]): Material => ({ role, name, traits });

/** Materials as makers know them; kinds, no makes. */
export const MATERIALS = {
  'extruded foam': material('body', 'Extruded foam', 'foam'),
  'expanded foam': material('body', 'Expanded foam, beads', 'foam', 'bead foam'),
  'craft foam': material('body', 'Soft white craft foam', 'foam', 'odd foam'),
  'foam board': material('body', 'Foam board, paper faces', 'foam', 'paper', 'drinks'),
  cork: material('body', 'Cork', 'holds air'),
  hardboard: material('body', 'Hardboard, MDF', 'thin wood', 'drinks'),
  plywood: material('body', 'Plywood', 'thin wood'),
  'plastic sheet': material('body', 'Expanded plastic sheet', 'plastic'),
  'floor tile': material('body', 'Flooring tile'),
  plaster: material('body', 'Plaster, filler', 'drinks', 'holds air'),
  printed: material('body', 'Printed plastic', 'plastic'),
  'cast resin': material('body', 'Cast resin'),
  card: material('body', 'Card, paper rims', 'paper', 'drinks'),
  'acrylic sealer': material('sealer', 'Water-based varnish or paint, two coats', 'wet'),
  'pva sealer': material('sealer', 'White glue, thinned', 'wet'),
  'paste sealer': material('sealer', 'Earth or mud paste', 'wet'),
  'spray sealer': material('sealer', 'Spray varnish', 'solvent', 'sprayed solvent'),
  'epoxy sealer': material('sealer', 'A thin coat of the resin', 'resin'),
  pva: material('glue', 'White glue', 'wet', 'shrinks'),
  'tacky glue': material('glue', 'Tacky glue', 'wet'),
  superglue: material('glue', 'Superglue, ordinary', 'superglue', 'solvent'),
  'foam superglue': material('glue', 'Superglue gel, foam-safe'),
  'gel superglue': material('glue', 'Superglue gel, ordinary', 'superglue', 'solvent'),
  'hot glue': material('glue', 'Hot glue, low temperature'),
  'hotter glue': material('glue', 'Hot glue, high temperature', 'very hot'),
  'construction glue': material('glue', 'Construction glue, solvent-free'),
  'brush paint': material('paint', 'Water-based paint, brushed', 'wet'),
  'spray paint': material('paint', 'Spray can', 'solvent', 'sprayed solvent'),
  'solvent paint': material('paint', 'Solvent-based paint', 'solvent'),
  'tape dam': material('dam', 'Tape'),
  'faced dam': material('dam', 'Faced boards'),
  'putty dam': material('dam', 'Putty'),
  'hot glue dam': material('dam', 'Strips with hot glue, low temperature'),
  'industrial dam': material('dam', 'Strips with industrial hot glue', 'never lets go', 'very hot'),
  'gloss varnish': material('varnish', 'Gloss, brushed', 'wet'),
  'matt varnish': material('varnish', 'Matt or satin, brushed', 'matt', 'wet'),
  'spray varnish': material('varnish', 'Matt spray', 'matt', 'solvent', 'sprayed solvent'),
  flock: material('plants', 'Flock, static grass', 'fibres'),
  fur: material('plants', 'Fake fur', 'fibres'),
  tufts: material('plants', 'Tufts', 'fibres'),
  reeds: material('plants', 'Reeds, rooted in the bed'),
  leaves: material('plants', 'Leaves', 'paper'),
  pin: material('heat', 'A pin, no heat'),
  'hot air': material('heat', 'Hot air', 'hot air'),
  flame: material('heat', 'A short flame', 'flame', 'hot air'),
} as const satisfies Record<string, Material>;
export type MaterialId = keyof typeof MATERIALS;
export const MATERIAL_IDS = Object.keys(MATERIALS) as MaterialId[];

/** One that the maker has beside those; nothing is known of it. */
export const ownMaterialSchema = z.object({
  id: z.string().min(1).max(40),
  role: z.enum(ROLES),
  name: z.string().trim().min(1, 'Give it a name').max(60, 'At most 60 characters'),
});
export type OwnMaterial = z.infer<typeof ownMaterialSchema>;

const choice = z.string().min(1).max(40);
/** What a set is built with: one of each role, or several. What is not said is not asked about. */
export const builtWithSchema = z.partialRecord(z.enum(ROLES), z.array(choice).max(12));
export type BuiltWith = z.infer<typeof builtWithSchema>;

/** A material by its id, the maker’s own ones among them; one that is no longer there is null. */
export function materialOf(id: string, own: readonly OwnMaterial[]): (Material & { told: boolean }) | null {
  if (id in MATERIALS) return { ...MATERIALS[id as MaterialId], told: true };
  const found = own.find((one) => one.id === id);
  return found ? { role: found.role, name: found.name, traits: [], told: false } : null;
}
