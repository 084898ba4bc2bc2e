/*
 * npm run corpus:breaks [FOLDER] [-- --json]: every text of the corpus, or of a folder, held against the pages that it was
 * saved with: how many of ours begin exactly there, by how much a page drifts, and where the first differs.
 */
import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { parseArgs } from 'node:util'
import { DocumentSession } from '../core/session'
import { Typesetter } from '../core/typeset/look'
import { matchBreaks, type BreakMatch } from '../core/typeset/saved-breaks'
import { Shaper } from '../core/typeset/shaper'
import { projectFolder } from '../server/library/files'
import { startHarfBuzz } from '../server/library/harfbuzz'
import { shippedLibrary } from '../server/library/shipped'

const { values, positionals } = parseArgs({
  options: { json: { type: 'boolean', default: false } },
  allowPositionals: true,
})
const folder = positionals[0] ?? join(projectFolder(), '.morphene', 'corpus')
if (!existsSync(folder)) {
  console.error(`there is no folder ${folder}: scripts/fetch-corpus.sh fetches the corpus, or name a folder`)
  process.exit(1)
}
const { library, load } = shippedLibrary()
const typesetter = new Typesetter(library, new Shaper(startHarfBuzz(), load))

interface Row extends BreakMatch {
  readonly file: string
  /** Families of the file that are absent here: their lines have other heights and widths. */
  readonly absent: readonly string[]
  /** What is not composed as asked. */
  readonly unlaid: readonly string[]
}
const rows: Row[] = []
for (const file of readdirSync(folder)
  .filter(each => /\.od[tpg]$/.test(each))
  .sort()) {
  try {
    const session = await DocumentSession.start(new Uint8Array(readFileSync(join(folder, file))), typesetter)
    const match = matchBreaks(session.composition)
    if (!match) continue
    const row: Row = {
      file,
      ...match,
      drift: Math.round(match.drift * 1000) / 1000,
      absent: [
        ...new Set(session.detail.census.faces.filter(face => face.status === 'absent').map(face => face.family)),
      ],
      unlaid: session.composition.unlaid.map(each => `${each.feature} (${each.count})`),
    }
    rows.push(row)
    if (values.json) continue
    console.log(
      `${file}: ${row.pages} pages, saved with ${row.pagesSaved}; ${row.met} of ${row.breaks} breaks met; a page drifts ` +
        `${row.drift.toFixed(2)} lines${row.absent.length > 0 ? `; absent: ${row.absent.join(', ')}` : ''}`,
    )
    if (row.first)
      console.log(`    page ${row.first.page} was to begin with “${row.first.words}”, ${row.first.lines} lines away`)
    for (const each of row.unlaid) console.log(`    not composed as asked: ${each}`)
  } catch (error) {
    console.error(`${file}: ${error instanceof Error ? error.message : String(error)}`)
    process.exitCode = 1
  }
}
if (values.json) console.log(JSON.stringify(rows, null, 1))
