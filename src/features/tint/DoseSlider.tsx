'use client';

import Slider from '@mui/material/Slider';
import { ThemeProvider } from '@mui/material/styles';
import { useState } from 'react';
import { mostGramsPer100 } from '@/core/tint/limits';
import type { Colourant } from '@/core/model/recipeSchema';
import { withoutVariables } from './withoutVariables';
import styles from './TintStage.module.css';

interface DoseSliderProps {
  colourant: Colourant;
  gramsPer100: number;
  /** Shown at once; written when `done`. */
  onDose: (gramsPer100: number, done: boolean) => void;
}

const STEPS = 400;
/** Doses are small: the first half of the way is the first quarter of the most. */
const gramsAt = (most: number, position: number): number => Math.round(most * (position / STEPS) ** 2 * 1000) / 1000;
const positionOf = (most: number, grams: number): number => STEPS * Math.sqrt(Math.min(1, grams / most));

/** A dose by eye: drag it, and every picture of the water follows. */
export function DoseSlider({ colourant, gramsPer100, onDose }: DoseSliderProps) {
  const most = mostGramsPer100(colourant);
  const [dragged, setDragged] = useState<number | null>(null);
  const grams = dragged === null ? gramsPer100 : gramsAt(most, dragged);
  return (
    <ThemeProvider theme={withoutVariables}>
      <Slider
        size="small"
        className={styles.slider!}
        aria-label={`${colourant.name} by eye`}
        min={0}
        max={STEPS}
        step={1}
        shiftStep={20}
        value={dragged ?? positionOf(most, gramsPer100)}
        getAriaValueText={() => `${grams.toFixed(3)} g`}
        valueLabelDisplay={dragged === null ? 'off' : 'on'}
        valueLabelFormat={() => `${grams.toFixed(3)} g, ${(grams / colourant.dropGrams).toFixed(1)} drops`}
        onChange={(_, value) => {
          setDragged(value as number);
          onDose(gramsAt(most, value as number), false);
        }}
        onChangeCommitted={(_, value) => {
          setDragged(null);
          onDose(gramsAt(most, value as number), true);
        }}
      />
    </ThemeProvider>
  );
}
