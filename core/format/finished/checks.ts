import { quoteChanges, quotes } from '../../change/clean-up/clean-up'
import { allowedFamilies } from '../../house/allowed-families'
import { legibility } from '../../house/legibility'
import type { CheckDescription } from '../../proof/check'
import { absentFaces } from '../../proof/checks/absent-faces'
import { dashesOf, hyphensForDashes } from '../../proof/checks/hyphens-for-dashes'
import { manyFamilies } from '../../proof/checks/many-families'
import { outsideHouse } from '../../proof/checks/outside-house'
import { smallType } from '../../proof/checks/small-type'
import { madeForNothing } from '../../font/held-licence'
import { unlicensed, wrongWith } from '../../proof/checks/unlicensed'
import { straightQuotes } from '../../proof/checks/straight-quotes'
import { plainNumber } from '../../style/describe'
import { requestOf } from '../../font/library'
import { familyOfFont } from './font-name'
import type { FinishedCheck, FinishedFound, FinishedSubject } from './check'
import type { FinishedPlace, FinishedReader } from './reader'

/*
 * What checks of a proof come to on a finished PDF: those that need no composition. A check that documents have, too, goes
 * by the same name in a checklist, and runs, matters and measures here as it is set there.
 */

/** What a check is, here told of PDFs. */
const told = (
  { id, group, title, severity, source, limits, unseen }: CheckDescription,
  own: Partial<CheckDescription>,
): CheckDescription => ({ id, group, title, severity, source, unseen, limits, looksFor: '', ...own })

/** Where a font of the census first stands, or first stands in a size. */
function first(reader: FinishedReader, font: number, size?: number): { readonly place?: FinishedPlace } {
  const place = reader
    .placesOf(font)
    .find(each => size === undefined || Math.abs(reader.sizeAt(each.page, each.line) - size) < 0.06)
  return place ? { place } : {}
}

const notEmbedded: FinishedCheck = {
  description: told(absentFaces, {
    title: 'Font that is not in the file',
    looksFor: 'Fonts that pages are set in and that the file does not carry.',
    source: 'ISO 32000-2, 9.9: a font that is not embedded is whatever the reader has.',
    unseen: 'Which face readers take instead.',
  }),
  *find({ reader, library }): Generator<FinishedFound> {
    for (const [index, font] of reader.census.fonts.entries()) {
      if (font.embedded || font.characters === 0) continue
      const { status, face } = library.resolve(requestOf(familyOfFont(font.name), 400, false))
      const here =
        status === 'present' ? 'it is in the library' : status === 'alias' ? `${face.family} is its like here` : ''
      yield {
        says:
          `${font.name} sets ${font.characters} characters and is not in the file: every reader shows another` +
          `${here === '' ? '' : `; ${here}`}`,
        ...first(reader, index),
      }
    }
  },
}

const unlicensedFonts: FinishedCheck = {
  description: told(unlicensed, {
    looksFor:
      'Fonts in the file whose licence, as the library has it, does not allow a PDF or what it is ticked for, or has ended.',
    unseen: 'Fonts that the library lacks, and licences that nobody entered. Told once for each family.',
  }),
  *find({ reader, library, madeFor = madeForNothing }): Generator<FinishedFound> {
    const seen = new Set<string>()
    for (const [index, font] of reader.census.fonts.entries()) {
      const family = familyOfFont(font.name)
      if (!font.embedded || font.characters === 0 || seen.has(family)) continue
      seen.add(family)
      const { status, face } = library.resolve(requestOf(family, 400, false))
      if (status !== 'present') continue
      const uses = [...new Set([...madeFor.uses, 'PDF' as const])]
      for (const { says, severity } of wrongWith(face, { ...madeFor, uses }))
        yield { says, ...(severity ? { severity } : {}), ...first(reader, index) }
    }
  },
}

const unreadable: FinishedCheck = {
  description: {
    id: 'unreadable-font',
    group: 'reading',
    title: 'Text that says nothing',
    severity: 'error',
    looksFor: 'Fonts whose codes are told nowhere to be letters.',
    source: 'ISO 32000-2, 9.10.2.',
    unseen: 'Pictures of text, and codes that tell wrong letters.',
  },
  *find({ reader }): Generator<FinishedFound> {
    for (const [index, font] of reader.census.fonts.entries())
      if (!font.readable && font.characters > 0)
        yield {
          says: `${font.name} sets ${font.characters} signs that cannot be searched, copied or read aloud`,
          ...first(reader, index),
        }
  },
}

const families: FinishedCheck = {
  description: told(manyFamilies, { looksFor: 'Families beyond those that set most of the text.' }),
  *find({ reader, house }, { families: usual }): Generator<FinishedFound> {
    const most = house?.limits.families ?? usual!
    const counts = new Map<string, { characters: number; index: number }>()
    for (const [index, { name, characters }] of reader.census.fonts.entries()) {
      if (characters === 0) continue
      const family = familyOfFont(name)
      const known = counts.get(family)
      counts.set(family, { index: known?.index ?? index, characters: (known?.characters ?? 0) + characters })
    }
    const sorted = [...counts].sort((a, b) => b[1].characters - a[1].characters)
    for (const [family, { characters, index }] of sorted.slice(most))
      yield {
        says: `${sorted.length} families are used, ${most} are meant: ${family} sets ${characters} characters`,
        ...first(reader, index),
      }
  },
}

const outside: FinishedCheck = {
  description: told(outsideHouse, { looksFor: 'Fonts of families that the house does not name.' }),
  *find({ reader, house }): Generator<FinishedFound> {
    const isAllowed = house && allowedFamilies(house)
    if (!isAllowed) return
    for (const [index, { name, characters }] of reader.census.fonts.entries())
      if (characters > 0 && !isAllowed(familyOfFont(name)))
        yield { says: `${familyOfFont(name)} is not of the house ${house.name}`, ...first(reader, index) }
  },
}

/** The x-height of a font: as its family has it in the library, else as most faces of text have it. */
function xHeightOf({ library }: FinishedSubject, name: string): { readonly xHeight: number; readonly of: string } {
  const { status, face } = library.resolve(requestOf(familyOfFont(name), 400, false))
  return status === 'present' && face.measures.xHeight > 0
    ? { xHeight: face.measures.xHeight, of: `${plainNumber(face.measures.xHeight)}, as in the library` }
    : { xHeight: 480, of: '480, as text faces usually have it' }
}

const small: FinishedCheck = {
  description: told(smallType, {
    looksFor: 'Text whose x-height spans too small an angle at 40 cm, or that is under the house’s least size.',
    unseen: 'Who reads it and by what light; the x-height of faces that the library lacks. Once a font and size.',
  }),
  *find(subject, { letters, degrees }): Generator<FinishedFound> {
    const least = subject.house?.limits.smallest.text
    for (const [index, font] of subject.reader.census.fonts.entries()) {
      const { xHeight, of } = xHeightOf(subject, font.name)
      for (const { size, characters } of font.sizes) {
        if (characters < letters! || size <= 0) continue
        const seen = legibility(size, xHeight, 'text')
        const tiny = seen.degrees < degrees! / 1000 - 1e-9
        if (!tiny && (least === undefined || size >= least - 0.05)) continue
        yield {
          says: tiny
            ? `${plainNumber(size)} pt of ${font.name} at 40 cm, ${characters} characters (x-height ${of}); ` +
              `${plainNumber(Math.ceil(((size * degrees!) / 1000 / seen.degrees) * 2 - 1e-9) / 2)} pt would do`
            : `${plainNumber(size)} pt; the house has ${plainNumber(least!)} pt at the least`,
          ...first(subject.reader, index, size),
        }
      }
    }
  },
}

const nearSizes: FinishedCheck = {
  description: {
    id: 'near-sizes',
    group: 'consistency',
    title: 'Sizes that are nearly alike',
    severity: 'warning',
    looksFor: 'Two sizes of one font that differ by so little that nobody sees a reason.',
    source: 'A difference under 6 % is near the smallest that readers tell apart side by side.',
    unseen: 'Fonts that are scaled on purpose, as drop capitals of a title.',
    limits: {
      letters: { title: 'Letters at least', usual: 3, least: 1, most: 1000 },
      percent: { title: 'Difference under, per cent', usual: 6, least: 1, most: 20 },
    },
  },
  *find({ reader }, { letters, percent }): Generator<FinishedFound> {
    for (const [index, font] of reader.census.fonts.entries()) {
      const sizes = font.sizes.filter(each => each.characters >= letters! && each.size > 0)
      for (const [at, { size, characters }] of sizes.entries()) {
        const like = sizes.slice(0, at).find(each => Math.abs(each.size / size - 1) < percent! / 100)
        if (!like) continue
        yield {
          says:
            `${font.name} in ${plainNumber(size)} pt (${characters} characters) beside ` +
            `${plainNumber(like.size)} pt (${like.characters})`,
          ...first(reader, index, size),
        }
      }
    }
  },
}

/** Words of every line, put right one by one. */
function* inLines(
  { reader }: FinishedSubject,
  changesOf: (text: string) => Iterable<{ from: number; to: number; says: string; words: string }>,
): Generator<FinishedFound> {
  for (let page = 1; page <= reader.looks.length; page++)
    for (const { line, text, inForm } of reader.lines(page))
      for (const { from, to, says, words } of changesOf(text)) {
        const place = reader.placeAt(page, line, from, to)
        yield {
          says,
          ...(place ? { place } : {}),
          ...(inForm ? {} : { repair: { type: 'put-right' as const, page, line, from, to, words } }),
        }
      }
}

const straight: FinishedCheck = {
  description: told(straightQuotes, {
    looksFor: 'The straight signs of a keyboard, where the language of the file has signs of its own.',
    unseen: 'Feet, inches, minutes and seconds are left; a quotation that runs over lines is judged line by line.',
  }),
  *find(subject): Generator<FinishedFound> {
    const language = subject.reader.finished.language || 'en'
    if (!quotes[language.split('-')[0]!]) return
    yield* inLines(subject, text =>
      /["']/.test(text)
        ? quoteChanges(text, language).map(({ from, to, after }) => ({
            from,
            to,
            words: after,
            says: `${text.slice(from, to)} for ${after.trim()}`,
          }))
        : [],
    )
  },
}

const dashes: FinishedCheck = {
  description: told(hyphensForDashes, {
    looksFor: 'Hyphens with spaces around, two hyphens together, and hyphens from one figure to a larger one.',
  }),
  *find(subject): Generator<FinishedFound> {
    yield* inLines(subject, text =>
      text.includes('-')
        ? [...dashesOf(text)].map(({ from, to, after, says }) => ({ from, to, says, words: after }))
        : [],
    )
  },
}

const untagged: FinishedCheck = {
  description: {
    id: 'untagged-pdf',
    group: 'reading',
    title: 'Not tagged for reading aloud',
    severity: 'warning',
    looksFor: 'A structure tree, and a language of the whole.',
    source: 'ISO 14289-1 (PDF/UA-1), 7.1 and 7.2.',
    unseen: 'Whether the structure is right.',
  },
  *find({ reader: { finished } }): Generator<FinishedFound> {
    if (!finished.tagged) yield { says: 'The file has no structure: programs that read aloud guess the order' }
    if (finished.language === '') yield { says: 'The file does not say which language it is in' }
  },
}

/** All checks of finished PDFs, in the order in which a proof tells them. A new one is its entry here. */
export const finishedChecks: readonly FinishedCheck[] = [
  notEmbedded,
  unlicensedFonts,
  unreadable,
  outside,
  families,
  nearSizes,
  straight,
  dashes,
  small,
  untagged,
]
