'use client';

import type { LearntFigure } from '@/core/learn/figures';
import { formatMinutes, formatMoney } from '@/core/units/formatMeasure';
import { useOwnWords, useUnits } from '@/ui/measure/UnitsContext';

type Field = LearntFigure['fields'][number];

/** Figures in the maker's words and units. */
export function useFigureWords(): {
  field: (field: Field, which: 'was' | 'now') => string;
  /** A value of the dots. */
  value: (value: number, unit: LearntFigure['unit']) => string;
} {
  const own = useOwnWords();
  const units = useUnits();
  const say = (value: number, unit: LearntFigure['unit'], fine: boolean): string => {
    switch (unit) {
      case 'g':
        return own(`${value.toFixed(fine && Math.round(value * 100) % 10 !== 0 ? 2 : 1)} g`);
      case 'g/min':
        return `${value.toFixed(value < 20 ? 1 : 0)} g/min`;
      case 'min':
        return value < 60 ? `${Number(value.toFixed(1))} min` : formatMinutes(value);
      case '%':
        return `${(100 * value).toFixed(1)} %`;
      case '×':
        return `${value.toFixed(2)} × the usual`;
      case 'money':
        return formatMoney(value, units);
    }
  };
  return {
    field: (field, which) => {
      const { name, unit } = field;
      const text = say(field[which], unit, true);
      return name === 'a cup' || name === 'a piece' || name === 'of the mix' || name === 'a batch'
        ? `${text} ${name}`
        : text;
    },
    value: (value, unit) => say(value, unit, false),
  };
}
