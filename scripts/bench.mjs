// npm run bench: bundles the bench as the server's threads are bundled, and runs it.
import { spawnSync } from 'node:child_process'
import { build } from 'esbuild'
import { fileURLToPath } from 'node:url'
import { dirname, join } from 'node:path'

const folder = join(dirname(fileURLToPath(import.meta.url)), '..')
for (const name of ['run', 'cold']) {
  await build({
    entryPoints: [join(folder, `bench/${name}.ts`)],
    outfile: join(folder, `.morphene/build/${name}.mjs`),
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    packages: 'external',
    logLevel: 'warning',
  })
}
const { status } = spawnSync(
  process.execPath,
  ['--expose-gc', join(folder, '.morphene/build/run.mjs'), ...process.argv.slice(2)],
  { stdio: 'inherit', env: { ...process.env, MORPHENE_FOLDER: folder } },
)
process.exitCode = status ?? 1
