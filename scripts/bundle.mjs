// Bundles the server's front door and its compute thread beside Next's own build, so that both start without compiling TypeScript.
import { build } from 'esbuild';

const shared = {
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  alias: { '@': './src' },
  logLevel: 'warning',
};
await build({ ...shared, entryPoints: ['src/server/threads/compute.ts'], outfile: '.next/compute.mjs' });
await build({ ...shared, entryPoints: ['src/server/door/serve.ts'], outfile: '.next/serve.mjs', packages: 'external' });
