/*
 * Are roles found? Holds the roles that the desk finds in documents out of Debian packages against what somebody judged by hand
 * before (role-labels.ts): npm run corpus:roles FOLDER, a folder as scripts/fetch-corpus.sh fills it. Documents whose own
 * styles say too little are drawn up first, as they are before they are dressed. Text counts by its characters.
 */
import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { styleKey, styleRoles } from '../core/census/style-roles'
import { needsDrawingUp } from '../core/change/draw-up/kind'
import { registry } from '../core/change/registry'
import { paragraphsOf, standingParagraphs } from '../core/document/stories'
import { DocumentSession } from '../core/session'
import { paragraphOwner } from '../core/house/to-style'
import type { Reading } from '../core/style/reading'
import { objectSign, paragraphRuns } from '../core/style/runs'
import { Shaper } from '../core/typeset/shaper'
import { Typesetter } from '../core/typeset/look'
import { startHarfBuzz } from '../server/library/harfbuzz'
import { shippedLibrary } from '../server/library/shipped'
import { roleLabels, type RoleLabels } from './role-labels'

const { library, load } = shippedLibrary()
const typesetter = new Typesetter(library, new Shaper(startHarfBuzz(), load))

/** Text of a paragraph as labels see it. */
interface Seen {
  readonly key: string
  readonly line: string
  readonly characters: number
}

/** What most of a paragraph is set in: family, size, B for bold. */
function lookOf(runs: ReturnType<typeof paragraphRuns>['runs']): string {
  const counts = new Map<string, number>()
  for (const { start, end, style } of runs) {
    const { font, size, weight } = style.effective.slots.western
    const look = `${font.family}${size}${weight >= 600 ? 'B' : ''}`
    counts.set(look, (counts.get(look) ?? 0) + end - start)
  }
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? ''
}

/** All paragraphs that say something, each as one line. */
function* seenOf(reading: Reading): Generator<Seen> {
  for (const { paragraph, story } of standingParagraphs(reading)) {
    const { runs, text: whole } = paragraphRuns(paragraph, reading.cascade, story.role)
    const text = whole.replaceAll(objectSign, '').trim()
    if (text === '') continue
    const { text: own } = reading.cascade.paragraph(paragraph, story.role)
    const { heading, place, list, part, node } = paragraph
    const words = [
      own.owner?.style.displayName ?? '-',
      heading === null ? '' : `h${heading}`,
      place,
      list ? 'L' : '',
      lookOf(runs),
      text.replace(/\s+/g, ' '),
    ]
    yield { key: `${part}#${node}`, line: words.join('|'), characters: text.length }
  }
}

/** The role that each paragraph has on the desk, or ‘none’. */
function rolesFound(reading: Reading): Map<string, string> {
  const roles = styleRoles(reading)
  const found = new Map<string, string>()
  for (const story of reading.stories)
    for (const paragraph of paragraphsOf(story.blocks)) {
      const owner = paragraphOwner(reading.cascade.paragraph(paragraph, story.role).text)
      const role = owner === null ? null : (roles.get(styleKey(owner))?.role ?? null)
      found.set(`${paragraph.part}#${paragraph.node}`, role ?? 'none')
    }
  return found
}

interface Score {
  characters: number
  right: number
  readonly wrong: Map<string, { characters: number; sample: string }>
}

function scoreOf(bytes: Uint8Array, { labels }: RoleLabels): Score {
  const session = DocumentSession.open(bytes, typesetter)
  const drawUp = registry.schema.parse({ wishes: [{ type: 'draw-up' }] })
  const { reading } = needsDrawingUp(session.reading, library)
    ? registry.plan(session, drawUp, { effects: false }).after
    : session
  const found = rolesFound(reading)
  const score: Score = { characters: 0, right: 0, wrong: new Map() }
  for (const { key, line, characters } of seenOf(session.reading)) {
    const label = labels.find(([pattern]) => pattern.test(line))![1]
    const role = found.get(key) ?? 'none'
    score.characters += characters
    if (role === label) score.right += characters
    else {
      const kind = `${label} taken for ${role}`
      const known = score.wrong.get(kind) ?? { characters: 0, sample: line.slice(0, 100) }
      known.characters += characters
      score.wrong.set(kind, known)
    }
  }
  return score
}

const folder = process.argv[2]
if (folder === undefined) throw new Error('Say which folder the documents are in.')
const percent = (share: number) => `${(share * 100).toFixed(1)} %`
const all = { characters: 0, right: 0, shares: 0, documents: 0 }
for (const each of roleLabels) {
  const path = join(folder, each.file)
  if (!existsSync(path)) {
    console.log(`${each.file}: not in this folder`)
    continue
  }
  const { characters, right, wrong } = scoreOf(new Uint8Array(readFileSync(path)), each)
  all.characters += characters
  all.right += right
  all.shares += right / characters
  all.documents++
  console.log(`${percent(right / characters)} of ${characters} characters: ${each.file}`)
  for (const [kind, { characters: count, sample }] of [...wrong]
    .sort((a, b) => b[1].characters - a[1].characters)
    .slice(0, 6))
    console.log(`    ${percent(count / characters)} ${kind}: ${sample}`)
}
console.log(
  `${percent(all.right / all.characters)} of all text, ${percent(all.shares / all.documents)} of a document at the mean, ` +
    `${all.documents} documents`,
)
