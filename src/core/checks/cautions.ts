import type { Product } from '../mixing/product';

/** What to mind before and while pouring, by how the product hardens. The label and the safety data sheet come first. */
export function pourCautions(product: Pick<Product, 'cureModel'>): string[] {
  const always = [
    'The product’s own label and safety data sheet and local rules come first; these figures are planning aids, not safety limits.',
  ];
  const waste =
    'Let what is left in the cup cure before it is thrown away, then by local rules. Never add leftovers to a pour: they have begun to set.';
  if (product.cureModel === 'two-part')
    return [
      ...always,
      'Gloves and eye protection; no skin contact. Air the room. A full cup can get hot: set it on something that does not burn.',
      'Flame or hot air against bubbles only when nothing near can burn or melt. Do not lean over it and breathe the fumes.',
      'Sand cured resin wet, with a dust mask. Children: with an adult.',
      waste,
    ];
  if (product.cureModel === 'lamp')
    return [
      ...always,
      'Do not look into the lamp; keep its light off the skin. Gloves; no skin contact with liquid resin. Air the room.',
      'Children: with an adult.',
      waste,
    ];
  return [...always, 'Air the room while it dries. Gloves when the label asks for them. Children: with an adult.'];
}
