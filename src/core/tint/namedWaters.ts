/** A water in words, and the colour that it has over a mid-brown bed at the depth where it is that water. */
export interface NamedWater {
  name: string;
  words: string;
  colour: string;
}

/** Natural waters and a few that are not: places to start from, chosen by eye. */
export const NAMED_WATERS: readonly NamedWater[] = [
  { name: 'Peat stream', words: 'tea over stones; the bed glows through', colour: '#5a3d1e' },
  { name: 'Bog', words: 'black-brown, shows nothing', colour: '#2a2013' },
  { name: 'Chalk brook', words: 'nearly clear, a breath of green', colour: '#94906a' },
  { name: 'Wooded river', words: 'green-brown, summer', colour: '#555437' },
  { name: 'Silty estuary', words: 'milky brown, hides the bed soon', colour: '#86755a' },
  { name: 'Tidal creek', words: 'grey-green over mud', colour: '#5a6350' },
  { name: 'Glacier melt', words: 'milky turquoise', colour: '#85a59f' },
  { name: 'Lagoon', words: 'clear turquoise over sand', colour: '#4f9a8e' },
  { name: 'Tarn', words: 'dark blue-green', colour: '#22383a' },
  { name: 'Harbour', words: 'dull green, oily', colour: '#3f4a3c' },
  { name: 'Pond in bloom', words: 'pea green', colour: '#5f6f27' },
  { name: 'Toxic pool', words: 'stylised: a green that nothing drinks from', colour: '#5f8f12' },
];
