// Bundles the server's front door and its compute thread beside Next's own build, so that both start without compiling TypeScript.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, constants } from 'node:zlib';
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

// Packed once, for devices of the network: on this machine packing costs more time than it saves.
const STATIC = '.next/static';
for (const name of readdirSync(STATIC, { recursive: true })) {
  if (!/\.(js|css|svg)$/.test(name)) continue;
  const packed = brotliCompressSync(readFileSync(join(STATIC, name)), {
    params: { [constants.BROTLI_PARAM_QUALITY]: 9 },
  });
  writeFileSync(join(STATIC, `${name}.br`), packed);
}
