'use client';

import { createContext, use, type ReactNode } from 'react';
import { METRIC, type UnitPreferences } from '@/core/units/formatMeasure';

const UnitsContext = createContext<UnitPreferences>(METRIC);

/** Gives every field and reading below it the maker's units. */
export function UnitsProvider({ units, children }: { units: UnitPreferences; children: ReactNode }) {
  return <UnitsContext value={units}>{children}</UnitsContext>;
}

/** The maker's units. */
export const useUnits = (): UnitPreferences => use(UnitsContext);
