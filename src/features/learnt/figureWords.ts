'use client';

import type { LearntFigure } from '@/core/learn/learntFigure';
import { formatMeasure, formatMinutes, formatMoney } from '@/core/units/formatMeasure';
import { useOwnWords, useUnits } from '@/ui/measure/UnitsContext';

type Field = LearntFigure['fields'][number];

/** Names of fields that are said after their figure: one of several. */
const SAID_WITH: ReadonlySet<string> = new Set(['a cup', 'a piece', 'of the mix', 'a batch', 'offset', 'wander']);

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
      case 'g/drop':
        return `${(value * 1000).toFixed(0)} mg`;
      case 'mm':
        return formatMeasure(value, 'length', units, 2);
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
      return SAID_WITH.has(name) ? `${text} ${name}` : text;
    },
    value: (value, unit) => say(value, unit, false),
  };
}
