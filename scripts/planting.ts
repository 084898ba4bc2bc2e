/*
 * Faults that are planted in documents to see whether a proof finds them: each kind says where it can stand and what makes
 * it there. Words are written by edits; looks are set by wishes.
 */
import type { TextRun } from '../core/style/runs'
import { registry } from '../core/change/registry'
import { applyEdit } from '../core/document/edits'
import { encodeStyleName } from '../core/document/style-names'
import { whyNotEdit } from '../core/document/refusals'
import { DocumentSession } from '../core/session'
import { Subject, type ProofText } from '../core/proof/subject'
import { shuffled } from '../tests/support/seeded'

/** A fault as it is planted in one paragraph. Offsets count its text. */
export type Fault =
  | { readonly kind: 'words'; readonly from: number; readonly to: number; readonly text: string }
  | { readonly kind: 'look'; readonly from: number; readonly to: number; readonly change: object }
  | { readonly kind: 'paragraph' }
  | { readonly kind: 'level'; readonly level: number }
  /** Words in a family that nobody has: a recast does not give such. */
  | { readonly kind: 'lost'; readonly from: number; readonly to: number }

/** The headings of the document before and after a paragraph: those that are nearest. */
export interface Around {
  readonly headingBefore: number | null
  readonly headingAfter: number | null
}

/** A kind of fault: for which check, and where a paragraph can have it; null where it cannot. */
export interface Planting {
  readonly check: string
  /** Languages of texts in which it is a fault; all without. */
  readonly languages?: readonly string[]
  /** Of text whose face is not here nothing can be told. */
  readonly inPresentFaces?: true
  readonly at: (text: ProofText, random: () => number, around: Around) => Fault | null
}

/** A place in a text that a pattern finds, by chance. */
function one(text: string, pattern: RegExp, random: () => number): RegExpExecArray | null {
  const all = [...text.matchAll(pattern)]
  return all.length === 0 ? null : (all[Math.floor(random() * all.length)] as RegExpExecArray)
}
const words = (from: number, to: number, text: string): Fault => ({ kind: 'words', from, to, text })

/** A word of a few letters inside a paragraph, with plain words around it. */
const inner = /(?<=\p{L} )\p{Ll}{4,}(?= \p{L})/gu

/** A fault that is written in place of what a pattern finds. */
const written = (check: string, pattern: RegExp, make: (found: string) => string): Planting => ({
  check,
  at: ({ text }, random) => {
    const found = one(text, pattern, random)
    return found && words(found.index, found.index + found[0].length, make(found[0]))
  },
})

/** A look that a word is given. */
const looked = (check: string, change: object, pattern = inner): Planting => ({
  check,
  at: ({ text }, random) => {
    const found = one(text, pattern, random)
    return found && { kind: 'look', from: found.index, to: found.index + found[0].length, change }
  },
})

/** Languages whose quotation marks are known. */
const quoted = ['en', 'de', 'fr', 'es', 'it', 'pt', 'pl', 'nl']

const german =
  'Das Boot legt um acht Uhr ab und ist nach einer Stunde wieder da, wenn der Wind nicht zu stark ist und die See es zulässt.'

/** The kinds of faults that can be planted in any text. */
export const plantings: readonly Planting[] = [
  { ...written('straight-quote', inner, found => `"${found}"`), languages: quoted },
  { ...written('foreign-quote', inner, found => `„${found}“`), languages: ['en', 'fr', 'es', 'it', 'pt'] },
  written('hyphen-for-dash', /(?<=\p{L}) (?=\p{L})/gu, () => ' - '),
  written('spare-space', /(?<=\p{L}) (?=\p{L})/gu, () => '  '),
  written('layout-space', /(?<=\p{L}) (?=\p{L})/gu, () => '     '),
  written('no-break-space', inner, () => '25 km'),
  written('typed-capitals', /(?<=\p{L} )\p{Ll}{5,} \p{Ll}{5,} \p{Ll}{4,}(?= \p{L})/gu, found => found.toUpperCase()),
  { ...written('missing-glyph', inner, found => `${found} ⛵`), inPresentFaces: true },
  {
    check: 'absent-face',
    at: ({ text }, random) => {
      const found = one(text, /(?<=\p{L}) (?=\p{L})/gu, random)
      return found && { kind: 'lost', from: found.index, to: found.index + 1 }
    },
  },
  looked('stray', { size: { percent: 130 } }),
  looked('contrast', { color: '#d8d8d8' }),
  // Of faces that are not here nothing can be told.
  { ...looked('small-type', { size: { points: 4 } }), inPresentFaces: true },
  looked('tracking', { tracking: 150 }),
  looked('colour-alone', { color: '#b4361e' }),
  looked('underlined', { underlined: true }),
  looked('missing-weight', { family: 'Abril Fatface', italic: true }),
  looked('made-small-capitals', { family: 'Oswald', case: 'small-caps' }),
  {
    check: 'decorative-body',
    at: ({ text }) =>
      text.length > 200 ? { kind: 'look', from: 0, to: text.length, change: { family: 'Great Vibes' } } : null,
  },
  {
    check: 'tight-leading',
    inPresentFaces: true,
    at: ({ text }) =>
      text.length > 400 ? { kind: 'look', from: 0, to: text.length, change: { leading: { percent: 55 } } } : null,
  },
  {
    check: 'language-tag',
    languages: ['en', 'fr', 'es', 'it', 'pt', 'pl'],
    at: ({ text }) => (text.length > 60 ? words(0, text.length, german) : null),
  },
  {
    check: 'empty-paragraph',
    at: ({ text, paragraph }) => (text.length > 60 && !paragraph.list ? { kind: 'paragraph' } : null),
  },
  {
    check: 'heading-level',
    // One that stands under another, and has none under itself: else those would be wrong, too.
    at: ({ paragraph: { heading } }, _, { headingBefore, headingAfter }) =>
      heading !== null && heading <= 3 && headingBefore !== null && (headingAfter ?? 1) <= heading
        ? { kind: 'level', level: Math.max(heading, headingBefore) + 3 }
        : null,
  },
]

/** Whether a paragraph of a body may have words written into it. */
function isOpen(session: DocumentSession, text: ProofText): boolean {
  const part = session.document.parts.get(text.paragraph.part)
  return (
    part !== undefined &&
    text.story.role === 'body' &&
    text.paragraph.place === 'body' &&
    !text.isCode &&
    text.runs.every(run => run.inline.kind !== 'text' || run.inline.field === null) &&
    whyNotEdit(session.document, part, text.paragraph.node) === null
  )
}

/** What was planted: the document with it, and the paragraphs that have it now. */
export interface Planted {
  readonly session: DocumentSession
  readonly places: readonly { readonly part: string; readonly node: number }[]
}

/** Plants a fault in some paragraphs of a document, drawn by chance, each at most once. Null where none can have it. */
export function plant(
  before: DocumentSession,
  planting: Planting,
  count: number,
  random: () => number,
): Planted | null {
  const subject = new Subject(before)
  const isPresent = ({ style, slot }: TextRun) => subject.resolution(style, slot).status === 'present'
  const open = subject.texts.filter(
    text =>
      isOpen(before, text) &&
      (planting.languages?.includes(text.language.split('-')[0]!) ?? true) &&
      (!planting.inPresentFaces || text.runs.every(isPresent)),
  )
  const headings = subject.texts.filter(({ paragraph, story }) => paragraph.heading !== null && story.role === 'body')
  const able = open.flatMap(text => {
    const at = headings.indexOf(text)
    const level = (index: number) => (at < 0 ? null : (headings[index]?.paragraph.heading ?? null))
    const fault = planting.at(text, random, { headingBefore: level(at - 1), headingAfter: level(at + 1) })
    return fault ? [{ text, fault }] : []
  })
  const chosen = shuffled(able, random).slice(0, count)
  if (chosen.length === 0) return null
  let session = before
  const places: { part: string; node: number }[] = []
  for (const { text, fault } of chosen) {
    const { part, node } = text.paragraph
    const own = planted(session, part, node, fault)
    session = own.session
    places.push({ part, node: own.node })
  }
  return { session, places }
}

/** One fault planted in a paragraph; with the paragraph that has it then. */
function planted(
  session: DocumentSession,
  part: string,
  node: number,
  fault: Fault,
): { readonly session: DocumentSession; readonly node: number } {
  const next = (document: DocumentSession['document']) => new DocumentSession(document, session.typesetter)
  const { nextId } = session.document.parts.get(part)!
  switch (fault.kind) {
    case 'words': {
      const { from, to, text } = fault
      return {
        session: next(applyEdit(session.document, { type: 'text', part, node, from, to, text }, nextId).document),
        node,
      }
    }
    case 'paragraph': {
      const paragraphs = [{ style: null, heading: null, runs: [] }]
      const { document, made } = applyEdit(session.document, { type: 'insert', part, node, paragraphs }, nextId)
      return { session: next(document), node: made ?? node }
    }
    case 'look': {
      const { from, to, change } = fault
      const wish = {
        type: 'recast',
        find: { look: {}, scope: { kind: 'ranges', ranges: [{ part, node, from, to }] } },
        change,
      }
      const request = registry.schema.parse({ wishes: [wish] })
      return { session: registry.plan(session, request, { effects: false }).after, node }
    }
    case 'lost': {
      const displayName = `Lost ${node}`
      const scope = { kind: 'ranges', ranges: [{ part, node, from: fault.from, to: fault.to }] }
      const fonts = Object.fromEntries(['western', 'asian', 'complex'].map(slot => [slot, { family: 'Brinkholm' }]))
      const wishes = [
        { type: 'make', family: 'text', displayName, changes: { fonts } },
        {
          type: 'apply',
          style: { family: 'text', name: encodeStyleName(displayName) },
          scope,
          strays: 'keep',
          keep: [],
        },
      ]
      return { session: registry.plan(session, registry.schema.parse({ wishes }), { effects: false }).after, node }
    }
    case 'level': {
      const places = [{ kind: 'level', part, node, level: fault.level }]
      const request = registry.schema.parse({ wishes: [{ type: 'mend', places }] })
      return { session: registry.plan(session, request, { effects: false }).after, node }
    }
  }
}
