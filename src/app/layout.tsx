import InitColorSchemeScript from '@mui/material/InitColorSchemeScript';
import type { Metadata, Viewport } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import { QueryRoot } from '@/ui/QueryRoot';
import { ThemeRoot } from '@/ui/theme/ThemeRoot';
import '@/ui/theme/fonts';
import '@/ui/theme/tokens.css';

export const metadata: Metadata = {
  title: { default: 'Aguada', template: '%s · Aguada' },
  description: 'Plans water terrain in batches: beds, levels, resin, tint and cure.',
};
export const viewport: Viewport = { width: 'device-width', initialScale: 1 };

export default async function RootLayout({ children }: { children: ReactNode }) {
  // Set at the front door: only scripts that carry it are run.
  const nonce = (await headers()).get('x-nonce') ?? undefined;
  return (
    <html lang="en" suppressHydrationWarning>
      <body>
        <InitColorSchemeScript attribute="data-theme" defaultMode="system" {...(nonce && { nonce })} />
        <QueryRoot>
          <ThemeRoot>{children}</ThemeRoot>
        </QueryRoot>
      </body>
    </html>
  );
}
