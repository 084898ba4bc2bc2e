import type { CatalogueEntry } from './catalogue'
import type { FaceRecord } from './face'
import { coveredScripts, type CoveredScript } from './measure/covered-scripts'
import { inProportions } from './likeness'

/** A face that a document has text in: the face that shows it, and how much. */
export interface FaceUse {
  readonly face: FaceRecord
  readonly characters: number
}

/** A family that would suit a document, with the reason in words. */
export interface Suited {
  readonly entry: CatalogueEntry
  readonly reason: string
}

/** The script that a language is written in (Unicode CLDR, likely subtags), by its ISO 15924 code; those that are covered. */
const scriptOfCode: Readonly<Record<string, CoveredScript>> = {
  Latn: 'Latin',
  Grek: 'Greek',
  Cyrl: 'Cyrillic',
  Hebr: 'Hebrew',
  Arab: 'Arabic',
  Deva: 'Devanagari',
  Thai: 'Thai',
  Jpan: 'Hiragana',
  Hans: 'Han',
  Hant: 'Han',
  Kore: 'Hangul',
}

/** Tags that were asked for: working them out takes longer than a paragraph's proof. Documents name few; more are not kept. */
const knownTags = new Map<string, CoveredScript | null>()
const mostTags = 500

/** The script of a language tag (BCP 47); null where it is not known. */
export function scriptOfLanguage(tag: string): CoveredScript | null {
  const known = knownTags.get(tag)
  if (known !== undefined) return known
  let script: CoveredScript | null = null
  try {
    script = scriptOfCode[new Intl.Locale(tag).maximize().script ?? ''] ?? null
  } catch {
    // No tag at all.
  }
  if (knownTags.size < mostTags) knownTags.set(tag, script)
  return script
}

/** At most so many are proposed. */
const proposed = 24
/** Steps in proportions within which lines and colour stay much as they are. */
const within = 1.6
/** A weight this near is as good as the one that is used. */
const nearWeight = 100
/** Less of a face's text than this share asks for nothing: a lone heading does not choose the body. */
const counts = 0.02

/** Scripts that the faces in use all have been chosen for: those that the most used one has, as far as the document's text needs them. */
const scriptsNeeded = (main: FaceRecord, scripts: ReadonlySet<CoveredScript>): CoveredScript[] =>
  coveredScripts.filter(script => scripts.has(script) && (main.coverage[script] ?? 0) > 0)

/**
 * Families that would suit a document: near in proportions to the face that most of its text is in, with its scripts, the
 * weights and the italics that are used, and fit for long reading where that face is. The nearest first.
 * @param scripts that its text is written in
 */
export function suitsDocument(
  entries: readonly CatalogueEntry[],
  uses: readonly FaceUse[],
  scripts: ReadonlySet<CoveredScript>,
): Suited[] {
  const all = uses.reduce((sum, use) => sum + use.characters, 0)
  const main = uses.reduce<FaceUse | null>(
    (most, use) => (most && most.characters >= use.characters ? most : use),
    null,
  )
  if (!main) return []
  const needed = scriptsNeeded(main.face, scripts)
  const own = entries.find(entry => entry.faces.some(face => face.hash === main.face.hash))
  const asked = uses.filter(use => use.face.family === main.face.family && use.characters >= all * counts)
  const weights = [...new Set(asked.map(use => use.face.weight))]
  const italics = asked.some(use => use.face.slant === 'italic')
  const reading = own?.fitness.find(each => each.use === 'long reading')?.fit ?? false
  return entries
    .filter(entry => entry.family !== main.face.family)
    .filter(entry => needed.every(script => entry.scripts.includes(script)))
    .filter(entry => !italics || entry.hasItalic)
    .filter(entry => weights.every(weight => entry.weights.some(each => Math.abs(each - weight) <= nearWeight)))
    .filter(entry => !reading || entry.fitness.find(each => each.use === 'long reading')!.fit)
    .map(entry => ({ entry, likeness: inProportions(main.face.measures, entry.plain.measures) }))
    .filter(({ likeness }) => likeness.distance <= within)
    .sort((a, b) => a.likeness.distance - b.likeness.distance)
    .slice(0, proposed)
    .map(({ entry, likeness }) => {
      const alike = likeness.parts
        // How letters are built is alike in half of all faces: it says little.
        .filter(part => part.steps <= 1 && !part.name.startsWith('storeys'))
        .sort((a, b) => a.steps - b.steps)
        .slice(0, 3)
        .map(part => part.name)
      return {
        entry,
        reason: `${likeness.distance.toFixed(1)} steps from ${main.face.family}: alike in ${alike.join(', ')}`,
      }
    })
}
