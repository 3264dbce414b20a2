// Bundles the server's front door and its compute thread beside Next's own build, so that both start without compiling TypeScript.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
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
// What is read from hundreds of small files takes longer to find than to run.
const whole = {
  ...shared,
  external: ['next', 'better-sqlite3', 'piscina'],
  banner: {
    js: "import { createRequire as requireFrom } from 'node:module'; const require = requireFrom(import.meta.url);",
  },
};
await build({ ...whole, entryPoints: ['src/server/door/serve.ts'], outfile: '.next/serve.mjs' });
await build({ ...whole, entryPoints: ['scripts/planSample.ts'], outfile: '.next/planSample.mjs' });
await import(pathToFileURL('.next/planSample.mjs').href);

// Packed once, for devices of the network: on this machine packing costs more time than it saves.
const STATIC = '.next/static';
for (const name of readdirSync(STATIC, { recursive: true })) {
  if (!/\.(js|css|svg)$/.test(name)) continue;
  const packed = brotliCompressSync(readFileSync(join(STATIC, name)), {
    params: { [constants.BROTLI_PARAM_QUALITY]: 9 },
  });
  writeFileSync(join(STATIC, `${name}.br`), packed);
}
