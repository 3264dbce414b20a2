'use client';

import CssBaseline from '@mui/material/CssBaseline';
import { ThemeProvider } from '@mui/material/styles';
import { useEffect, type ReactNode } from 'react';
import { theme } from './theme';

/** Puts the theme round the app. */
export function ThemeRoot({ children }: { children: ReactNode }) {
  // Children are awake before their parent: from now on keys and presses are heard.
  useEffect(() => {
    document.documentElement.dataset['awake'] = '';
  }, []);
  return (
    <ThemeProvider theme={theme} defaultMode="system" noSsr={false}>
      <CssBaseline />
      {children}
    </ThemeProvider>
  );
}
