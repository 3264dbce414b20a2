'use client';

import Slider from '@mui/material/Slider';
import { ThemeProvider } from '@mui/material/styles';
import { formatMeasure } from '@/core/units/formatMeasure';
import { useUnits } from '@/ui/measure/UnitsContext';
import { withoutVariables } from '../withoutVariables';
import tint from '../TintStage.module.css';
import styles from './PoursView.module.css';

interface HalfwaySliderProps {
  /** Of the deepest, 0 to 1. */
  share: number;
  deepestMm: number;
  onShare: (share: number) => void;
}

/** Where the tint has done half of its work, along the same depths as the picture above it. */
export function HalfwaySlider({ share, deepestMm, onShare }: HalfwaySliderProps) {
  const units = useUnits();
  const words = formatMeasure(share * deepestMm, 'length', units);
  return (
    <ThemeProvider theme={withoutVariables}>
      <Slider
        size="small"
        className={`${tint.slider!} ${styles.halfway!}`}
        aria-label="Half as dark at"
        min={0.05}
        max={0.95}
        step={0.01}
        shiftStep={0.1}
        value={share}
        getAriaValueText={() => words}
        onChange={(_, value) => onShare(value as number)}
      />
      <p
        className={styles.small}
      >{`Half as dark at ${words}: drag it, or use the arrow keys. Further right keeps the shore clear for longer.`}</p>
    </ThemeProvider>
  );
}
