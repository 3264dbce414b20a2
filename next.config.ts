import type { NextConfig } from 'next';

const config: NextConfig = {
  serverExternalPackages: ['better-sqlite3', 'piscina'],
  // The migrations are read from the source tree at start.
  outputFileTracingIncludes: { '/*': ['./src/db/migrations/**'] },
  reactStrictMode: true,
  poweredByHeader: false,
  // It is served on this machine or over a few metres of network: packing costs both ends more time than it saves.
  compress: false,
  devIndicators: false,
  // The first page comes first: what other pages need is loaded once it has been drawn.
  experimental: { preloadEntriesOnStart: false },
};

export default config;
