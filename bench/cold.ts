/*
 * One cold opening, in a process of its own: prints the milliseconds from the package's bytes to the first page's
 * drawing instructions. The shaping engine and the fonts are started and read within them.
 */
import { readFileSync } from 'node:fs'
import { DocumentSession } from '../core/session'
import { displayPage } from '../core/typeset/display'
import { Typesetter } from '../core/typeset/look'
import { Shaper } from '../core/typeset/shaper'
import { startHarfBuzz } from '../server/library/harfbuzz'
import { shippedLibrary } from '../server/library/shipped'

const { library, load } = shippedLibrary()
const bytes = new Uint8Array(readFileSync(process.argv[2]!))
const start = performance.now()
const session = await DocumentSession.start(bytes, new Typesetter(library, new Shaper(startHarfBuzz(), load)))
const page = displayPage(session.page(0)!)
if (page.runs.length === 0) throw new Error('the first page is empty')
console.log(performance.now() - start)
