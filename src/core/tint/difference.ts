import { converter, differenceCiede2000, type Lab65 } from 'culori';
import type { LinearRgb } from './colour';

const toLab = converter('lab65');
const ciede2000 = differenceCiede2000();

/** A colour in CIE L*a*b* under the daylight of screens (D65), in which differences are measured. */
export const labOf = ({ red, green, blue }: LinearRgb): Lab65 => toLab({ mode: 'lrgb', r: red, g: green, b: blue });

/** CIEDE2000 between two colours in L*a*b*: 1 is just seen side by side, 2 passes at a close look, 5 shows. */
export const labDifference = (a: Lab65, b: Lab65): number => ciede2000(a, b);

/** CIEDE2000 between two colours in linear light. */
export const deltaE = (a: LinearRgb, b: LinearRgb): number => ciede2000(labOf(a), labOf(b));
