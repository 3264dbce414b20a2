'use client';

import { AppRouterCacheProvider } from '@mui/material-nextjs/v16-appRouter';
import CssBaseline from '@mui/material/CssBaseline';
import { ThemeProvider } from '@mui/material/styles';
import { useEffect, type ReactNode } from 'react';
import { theme } from './theme';

/**
 * No prefixes of other years' browsers: they are a sixth of the styles of a page. Said once for all requests: the server keeps
 * the styles that it has put into words for as long as the list of plugins is the same one.
 */
const STYLES = { enableCssLayer: true, stylisPlugins: [] };

/** Puts the theme round the app. */
export function ThemeRoot({ children }: { children: ReactNode }) {
  // Children are awake before their parent: from now on keys and presses are heard.
  useEffect(() => {
    document.documentElement.dataset['awake'] = '';
  }, []);
  return (
    <AppRouterCacheProvider options={STYLES}>
      <ThemeProvider theme={theme} defaultMode="system" noSsr={false}>
        <CssBaseline />
        {children}
      </ThemeProvider>
    </AppRouterCacheProvider>
  );
}
