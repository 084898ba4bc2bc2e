import { createRequire } from 'node:module'
import { join } from 'node:path'
import { Subsetter } from '../../core/format/pdf/subset'
import { HarfBuzz, type StartModule } from '../../core/typeset/harfbuzz'
import { projectFolder, readFontFile } from './files'

const code = (name: string) =>
  readFontFile(createRequire(join(projectFolder(), 'package.json')).resolve(`harfbuzzjs/dist/${name}.wasm`))
const start: StartModule = (module, imports) =>
  new WebAssembly.Instance(new WebAssembly.Module(module as Uint8Array<ArrayBuffer>), imports as WebAssembly.Imports)
    .exports

/** HarfBuzz with its module read from the package, on the server, in threads and in programs. */
export function startHarfBuzz(): HarfBuzz {
  return new HarfBuzz(start, code('harfbuzz'))
}

/** The subsetter, likewise: needed for PDF alone. */
export function startSubsetter(): Subsetter {
  return new Subsetter(start, code('harfbuzz-subset'))
}
