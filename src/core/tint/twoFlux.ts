/** One layer of tinted water for one channel of linear light: what it throws back over black, and what passes it one way. */
export interface Flux {
  reflects: number;
  passes: number;
}

/**
 * A homogeneous layer by the two-flux model (Kubelka and Munk): absorption K and scattering S per mm, thickness X mm. With
 * A = K + S, B = √(K(K + 2S)) and q = (1 − e^(−2BX))/2B it is R0 = S·q/(1 + (A − B)·q) and T = e^(−BX)/(1 + (A − B)·q), the
 * hyperbolic form without its hyperbolic functions: A − B is taken as S²/(A + B), so that nothing cancels, overflows or divides
 * by nothing for any K, S, X ≥ 0, be they tiny or huge. Diffuse light, no reflection at the surface, no fluorescence.
 */
export function layerFlux(absorption: number, scattering: number, thicknessMm: number): Flux {
  const sum = absorption + scattering;
  const root = Math.sqrt(absorption * (absorption + 2 * scattering));
  const rest = sum + root > 0 ? (scattering * scattering) / (sum + root) : 0;
  const way = 2 * root * thicknessMm;
  const q = way > 1e-9 ? -Math.expm1(-way) / (2 * root) : thicknessMm * (1 - way / 2);
  const below = 1 + rest * q;
  return { reflects: (scattering * q) / below, passes: Math.exp(-root * thicknessMm) / below };
}

/** What is seen of a background through a layer: R = R0 + T²·Rg/(1 − R0·Rg). */
export const seenThrough = ({ reflects, passes }: Flux, background: number): number =>
  reflects + (passes * passes * background) / (1 - reflects * background);

/** Two layers as one, the first on top: the adding equations. Seen from above; only from below would the order of R0 differ. */
export function stacked(top: Flux, under: Flux): Flux {
  const between = 1 - top.reflects * under.reflects;
  return {
    reflects: top.reflects + (top.passes * top.passes * under.reflects) / between,
    passes: (top.passes * under.passes) / between,
  };
}

/** Reflectance of a layer without end: R∞ = 1 + K/S − √((K/S)² + 2K/S). 0 for water that scatters nothing. */
export function endlessReflectance(absorption: number, scattering: number): number {
  if (scattering <= 0) return 0;
  const ratio = absorption / scattering;
  // 1/(1 + r + √(r² + 2r)): the same without the difference of two large numbers.
  return 1 / (1 + ratio + Math.sqrt(ratio * (ratio + 2)));
}
