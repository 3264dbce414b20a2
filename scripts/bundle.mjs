// Bundles the server's compute thread beside Next's own build, so that a thread starts without compiling TypeScript.
import { build } from 'esbuild';

await build({
  entryPoints: ['src/workers/server/compute.ts'],
  outfile: '.next/compute.mjs',
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  alias: { '@': './src' },
  logLevel: 'warning',
});
