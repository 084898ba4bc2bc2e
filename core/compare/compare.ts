import { diffWordsWithSpace } from 'diff'
import type { Occurrence } from '../census/occurrence'
import { sizeAndLeading, type VoiceLook } from '../census/voices'
import { faceName } from '../font/face'
import { describeHolder, describeValues } from '../style/describe'
import { familyName, styleFamilies } from '../style/families'
import type { Style, StyleScope } from '../document/styles'
import type { DocumentSession } from '../session'
import { comparedParagraphs, pairParagraphs, type Compared, type Pair, type VoicedRun } from './sequence'

/** What is different at a place. */
export type DifferenceKind = 'words' | 'came' | 'went' | 'look' | 'style' | 'setting' | 'page'

/** One place in which two documents differ. */
export interface Difference {
  readonly kind: DifferenceKind
  /** As each document has it, in words; '' where it has no such thing. */
  readonly one: string
  readonly other: string
  /** The words around it. */
  readonly near: string
  /** Where it is in each; null where it is not. */
  readonly before: Occurrence | null
  readonly after: Occurrence | null
}

/** A voice or a style with how each document has it. */
export interface Changed {
  /** Of voices or styles, no two have the same. */
  readonly key: string
  readonly what: string
  /** null where it is not there. */
  readonly one: string | null
  readonly other: string | null
}

/** In what two documents differ. */
export interface Comparison {
  readonly pagesBefore: number
  readonly pagesAfter: number
  readonly voices: readonly Changed[]
  readonly styles: readonly Changed[]
  /** In reading order. */
  readonly differences: readonly Difference[]
  /** There are so many more. */
  readonly more: number
}

/** As many differences are told. */
const differenceLimit = 5_000

/** A voice in a printer’s way: “Spectral Regular 10.2 / 14.4, tracked 0.2pt, #b4361e”. */
export function voiceWords(voice: VoiceLook): string {
  return [
    `${faceName(voice.family, voice.style)} ${sizeAndLeading(voice)}`,
    ...(voice.tracking === '' ? [] : [`tracked ${voice.tracking}`]),
    ...(voice.case === '' ? [] : [voice.case]),
    ...(voice.color === '' ? [] : [voice.color]),
    ...(voice.position === '' ? [] : ['raised or lowered']),
  ].join(', ')
}

const occurrence = ({ paragraph, page }: Compared, start: number, end: number): Occurrence => ({
  part: paragraph.part,
  node: paragraph.node,
  start,
  end,
  page,
  face: '',
  voice: '',
  place: paragraph.place,
})

const near = (text: string, at: number): string => text.slice(Math.max(0, at - 20), at + 40).replace(/\s+/g, ' ')

const runAt = (runs: readonly VoicedRun[], at: number): VoicedRun | undefined =>
  runs.find(run => run.start <= at && run.end > at)

/** Differences of look in a stretch of words that both have: neighbours that change alike as one. */
function lookDifferences(before: Compared, from: number, after: Compared, to: number, length: number): Difference[] {
  const found: Difference[] = []
  for (let at = 0; at < length;) {
    const [one, other] = [runAt(before.runs, from + at), runAt(after.runs, to + at)]
    const end = Math.min(length, (one?.end ?? Infinity) - from, (other?.end ?? Infinity) - to)
    if (one && other && one.key !== other.key) {
      const words = { one: voiceWords(one.voice), other: voiceWords(other.voice) }
      const last = found.at(-1)
      if (last && last.one === words.one && last.other === words.other && last.after!.end === to + at)
        found[found.length - 1] = {
          ...last,
          before: { ...last.before!, end: from + end },
          after: { ...last.after!, end: to + end },
        }
      else
        found.push({
          kind: 'look',
          ...words,
          near: near(after.text, to + at),
          before: occurrence(before, from + at, from + end),
          after: occurrence(after, to + at, to + end),
        })
    }
    at = Math.max(end, at + 1)
  }
  return found
}

/** Differences of words, with those of look in the words between them. */
function wordDifferences(before: Compared, after: Compared): Difference[] {
  if (before.text === after.text) return lookDifferences(before, 0, after, 0, before.text.length)
  const found: Difference[] = []
  let [one, other] = [0, 0]
  let [went, came] = ['', '']
  const put = () => {
    if (went === '' && came === '') return
    found.push({
      kind: 'words',
      one: went,
      other: came,
      near: near(after.text, other - came.length),
      before: occurrence(before, one - went.length, one),
      after: occurrence(after, other - came.length, other),
    })
    ;[went, came] = ['', '']
  }
  for (const { added, removed, value } of diffWordsWithSpace(before.text, after.text)) {
    if (removed) {
      went += value
      one += value.length
    } else if (added) {
      came += value
      other += value.length
    } else {
      put()
      found.push(...lookDifferences(before, one, after, other, value.length))
      one += value.length
      other += value.length
    }
  }
  put()
  return joined(found, before.text, after.text)
}

/** Changed words with nothing but a space between them are one change. */
function joined(found: readonly Difference[], one: string, other: string): Difference[] {
  const result: Difference[] = []
  for (const each of found) {
    const last = result.at(-1)
    const between = last?.kind === 'words' && each.kind === 'words'
    const [from, to] = [last?.before?.end ?? 0, each.before?.start ?? 0]
    if (
      !between ||
      !/^\s+$/.test(one.slice(from, to)) ||
      !/^\s+$/.test(other.slice(last.after!.end, each.after!.start))
    ) {
      result.push(each)
      continue
    }
    const [before, after] = [
      { ...last.before!, end: each.before!.end },
      { ...last.after!, end: each.after!.end },
    ]
    const words = { one: one.slice(before.start, before.end), other: other.slice(after.start, after.end) }
    result[result.length - 1] = { ...last, ...words, before, after }
  }
  return result
}

/** What a paragraph’s setting says in words, leading aside: that is told with its voice. */
function settingWords(of: Compared, other: Compared): string {
  const changed = Object.fromEntries(
    Object.entries(of.properties).filter(
      ([name, value]) => other.properties[name] !== value && !/line-height|line-spacing/.test(name),
    ),
  )
  return describeValues({}, changed, null).join(', ')
}

/** Differences of a paragraph that both have. */
function pairDifferences({ before, after }: { readonly before: Compared; readonly after: Compared }): Difference[] {
  const found = wordDifferences(before, after)
  const whole = {
    near: near(after.text, 0),
    before: occurrence(before, 0, before.text.length),
    after: occurrence(after, 0, after.text.length),
  }
  const level = ({ paragraph: { heading } }: Compared) => (heading === null ? '' : `, heading ${heading}`)
  const [one, other] = [`${before.style || 'no style'}${level(before)}`, `${after.style || 'no style'}${level(after)}`]
  if (one !== other) found.push({ kind: 'style', one, other, ...whole })
  const [set, is] = [settingWords(before, after), settingWords(after, before)]
  if (set !== is) found.push({ kind: 'setting', one: set || 'as usual', other: is || 'as usual', ...whole })
  return found
}

/**
 * Where text begins to stand on other pages than before, and where it stands on the same again. Where pages end elsewhere,
 * what is moved goes to and fro by one: that is not told again.
 */
function pageDifferences(pairs: readonly Pair[]): Difference[] {
  let shift = 0
  return pairs.flatMap(({ before, after }): Difference[] => {
    // What stands on a master stands on all of its pages.
    const flows = (of: Compared | null) => of !== null && of.page >= 0 && /^(body|page)$/.test(of.story.role)
    if (!before || !after || !flows(before) || !flows(after)) return []
    const own = after.page - before.page
    if (own === shift || (own !== 0 && shift !== 0 && Math.abs(own - shift) <= 1)) return []
    shift = own
    return [
      {
        kind: 'page',
        one: `page ${before.page + 1}`,
        other: `page ${after.page + 1}`,
        near: near(after.text, 0),
        before: occurrence(before, 0, before.text.length),
        after: occurrence(after, 0, after.text.length),
      },
    ]
  })
}

function* differencesOf(pairs: readonly Pair[]): Generator<Difference> {
  for (const { before, after } of pairs) {
    if (before && after) yield* pairDifferences({ before, after })
    else if (before)
      yield {
        kind: 'went',
        one: before.text.slice(0, 200),
        other: '',
        near: near(before.text, 0),
        before: occurrence(before, 0, before.text.length),
        after: null,
      }
    else if (after)
      yield {
        kind: 'came',
        one: '',
        other: after.text.slice(0, 200),
        near: near(after.text, 0),
        before: null,
        after: occurrence(after, 0, after.text.length),
      }
  }
  yield* pageDifferences(pairs)
}

/** Things of two documents by what they are called: those that differ. */
function changed(
  before: ReadonlyMap<string, string>,
  after: ReadonlyMap<string, string>,
  titles: ReadonlyMap<string, string>,
): Changed[] {
  return [...new Set([...before.keys(), ...after.keys()])]
    .filter(key => before.get(key) !== after.get(key))
    .map(key => ({ key, what: titles.get(key) ?? key, one: before.get(key) ?? null, other: after.get(key) ?? null }))
}

function voiceChanges(before: DocumentSession, after: DocumentSession): Changed[] {
  const amounts = ({ detail: { census } }: DocumentSession) =>
    new Map(census.voices.map(each => [each.key, `${each.characters} characters`]))
  const titles = new Map(
    [before, after].flatMap(each => each.detail.census.voices.map(voice => [voice.key, voiceWords(voice)] as const)),
  )
  return changed(amounts(before), amounts(after), titles)
}

/** Common styles of a document, each by what it says. */
function stylesOf({ reading }: DocumentSession): Map<string, { readonly style: Style; readonly scope: StyleScope }> {
  const scope = [...reading.cascade.scopes.values()].at(-1)
  return new Map([...(scope?.common ?? [])].map(([key, style]) => [key, { style, scope: scope! }]))
}

function styleChanges(before: DocumentSession, after: DocumentSession): Changed[] {
  const said = (of: DocumentSession) =>
    new Map(
      [...stylesOf(of)].map(([key, { style, scope }]) => [
        key,
        [
          ...(style.parentName === null ? [] : [`as ${style.parentName}`]),
          ...describeValues(style.text, style.paragraph, scope),
          ...describeHolder({ ...style.graphic, ...style.cell }),
        ].join(', ') || 'says nothing of its own',
      ]),
    )
  return changed(said(before), said(after), styleTitles([before, after]))
}

/** What the styles of documents are called, with their kind where styles of two kinds have one name. */
function styleTitles(documents: readonly DocumentSession[]): Map<string, string> {
  const styles = new Map(
    documents.flatMap(each => [...stylesOf(each)].map(([key, { style }]) => [key, style] as const)),
  )
  const families = new Map<string, Set<string>>()
  for (const { displayName, family } of styles.values())
    families.set(displayName, (families.get(displayName) ?? new Set()).add(family))
  const kindOf = (family: string) => styleFamilies.find(each => each === family)
  return new Map(
    [...styles].map(([key, { displayName, family }]) => {
      const kind = families.get(displayName)!.size > 1 ? kindOf(family) : undefined
      return [key, kind ? `${displayName} (${familyName(kind)})` : displayName]
    }),
  )
}

/** In what two documents, or two versions of one, differ: voices, styles, words, looks, pages. */
export function compareDocuments(before: DocumentSession, after: DocumentSession): Comparison {
  const pairs = pairParagraphs(comparedParagraphs(before), comparedParagraphs(after))
  const differences: Difference[] = []
  let more = 0
  for (const each of differencesOf(pairs))
    if (differences.length < differenceLimit) differences.push(each)
    else more++
  return {
    pagesBefore: before.composition.pages.length,
    pagesAfter: after.composition.pages.length,
    voices: voiceChanges(before, after),
    styles: styleChanges(before, after),
    differences,
    more,
  }
}
