/*
 * Bundles the thread script with nearly all that it needs: a server has several threads, and reading hundreds of small files
 * takes each of them far longer than reading one. Outside stay packages that read files beside themselves, and what only some
 * threads need, which is read when it is needed.
 */
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
  external: ['harfbuzzjs', 'wawoff2', 'pdfjs-dist', '@napi-rs/canvas', 'hyphen/*'],
  // Packages of the older module system ask for others by `require`, which modules have none of.
  banner: {
    js: "import { createRequire as requireBeside } from 'node:module'; const require = requireBeside(import.meta.url);",
  },
  sourcemap: 'linked',
  logLevel: 'warning',
})
