/** Activation energy of epoxy cure, J/mol (about ×2 per 10 °C), and the gas constant. */
export const ACTIVATION_ENERGY_J = 55_000;
const GAS_CONSTANT = 8.314462618;
const KELVIN = 273.15;

/**
 * How many times longer a reaction takes at `roomC` than at `referenceC`: exp(Ea/R·(1/T − 1/Tref)), Arrhenius.
 * Holds from about 10 to 35 °C; colder, many resins stop short of full cure.
 */
export const temperatureFactor = (roomC: number, referenceC: number): number =>
  Math.exp((ACTIVATION_ENERGY_J / GAS_CONSTANT) * (1 / (roomC + KELVIN) - 1 / (referenceC + KELVIN)));

/** Colder than this many resins cure cloudy or stay soft. */
export const COLDEST_C = 15;
