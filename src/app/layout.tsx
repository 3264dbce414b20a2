import InitColorSchemeScript from '@mui/material/InitColorSchemeScript';
import { AppRouterCacheProvider } from '@mui/material-nextjs/v16-appRouter';
import type { Metadata, Viewport } from 'next';
import type { ReactNode } from 'react';
import { ThemeRoot } from '@/ui/theme/ThemeRoot';
import '@/ui/theme/fonts';
import '@/ui/theme/tokens.css';

export const metadata: Metadata = {
  title: { default: 'Aguada', template: '%s · Aguada' },
  description: 'Plans water terrain in batches: beds, levels, resin, tint and cure.',
};
export const viewport: Viewport = { width: 'device-width', initialScale: 1 };

export default function RootLayout({ children }: { children: ReactNode }) {
  return (
    <html lang="en" suppressHydrationWarning>
      <body>
        <InitColorSchemeScript attribute="data-theme" defaultMode="system" />
        {/* No prefixes of other years' browsers: they are a sixth of the styles of a page. */}
        <AppRouterCacheProvider options={{ enableCssLayer: true, stylisPlugins: [] }}>
          <ThemeRoot>{children}</ThemeRoot>
        </AppRouterCacheProvider>
      </body>
    </html>
  );
}
