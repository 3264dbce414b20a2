import type { Theme } from '@mui/material/styles';

/** The theme leaves out the variables of the slider's colours; here they come from the style sheet. */
export const withoutVariables = (outer: Theme): Theme => ({ ...outer, vars: undefined }) as unknown as Theme;
