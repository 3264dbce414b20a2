/** How far two colours are apart, in words, with the figure. */
export function differenceWords(deltaE: number): string {
  const words =
    deltaE < 1
      ? 'the same to the eye'
      : deltaE < 2
        ? 'hardly told apart side by side'
        : deltaE < 5
          ? 'told apart side by side'
          : deltaE < 12
            ? 'another shade'
            : 'another colour';
  return `${words} (ΔE ${deltaE.toFixed(1)})`;
}
