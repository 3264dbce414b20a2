'use client';

import { createContext, use, useCallback, type ReactNode } from 'react';
import { METRIC, type UnitPreferences } from '@/core/units/formatMeasure';
import { inMakersUnits } from '@/core/units/inMakersUnits';

const UnitsContext = createContext<UnitPreferences>(METRIC);

/** Gives every field and reading below it the maker's units. */
export function UnitsProvider({ units, children }: { units: UnitPreferences; children: ReactNode }) {
  return <UnitsContext value={units}>{children}</UnitsContext>;
}

/** The maker's units. */
export const useUnits = (): UnitPreferences => use(UnitsContext);

/** Puts the measures within a sentence into the maker's units. */
export function useOwnWords(): (text: string) => string {
  const units = useUnits();
  return useCallback((text) => inMakersUnits(text, units), [units]);
}
