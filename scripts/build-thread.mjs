// Bundles the thread script; packages stay outside, so that HarfBuzz finds its WASM file beside itself.
import { build } from 'esbuild'
import { fileURLToPath } from 'node:url'
import { dirname, join } from 'node:path'

const folder = join(dirname(fileURLToPath(import.meta.url)), '..')
await build({
  entryPoints: [join(folder, 'server/work/thread.ts')],
  outfile: join(folder, '.morphene/build/thread.mjs'),
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  packages: 'external',
  sourcemap: 'inline',
  logLevel: 'warning',
})
