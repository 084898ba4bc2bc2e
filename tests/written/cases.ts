import { createHash } from 'node:crypto'
import { saveDocument } from '../../core/document/open'
import { paragraphsOf } from '../../core/document/stories'
import type { DocumentSession } from '../../core/session'
import type { Plan, RowKey } from '../../core/change/plan'
import { registry } from '../../core/change/registry'
import { declarationsKey, sparedKey } from '../../core/change/swap/wish'
import { proposeStyles } from '../../core/change/draw-up/propose'
import { listLanguages } from '../../core/change/languages/languages'
import { takePiece } from '../../core/change/kept-frame/set-piece'
import { saltmereLine, winterService } from '../../demo/houses'
import { groupIds } from '../../core/style/groups'
import { paragraphRuns, paragraphText } from '../../core/style/runs'

/** A wish and what it came to: a hash of the file that is written, or that it was refused, and what is told of it. */
export interface Written {
  readonly wish: string
  readonly hash: string
  /** The plan in words: its title, its places by rows, what stays and why. A refusal's sentence. */
  readonly told: readonly string[]
}

const hashOf = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex').slice(0, 16)

const short = (text: string) => (text.length > 60 ? `${text.slice(0, 60)}…` : text)

/** A plan as a person reads it. */
function toldOf(plan: Plan): string[] {
  const rows = plan.rows.slice(0, 12).map(row => {
    const choice = row.included ? '' : row.reason === null ? ' (left out)' : ` (not: ${row.reason})`
    const { title, before, after, count, characters } = row
    return `${row.stage}: ${short(title)}: ${short(before)} > ${short(after)}, ${count} of ${characters} letters${choice}`
  })
  const groups = plan.groups
    .slice(0, 6)
    .map(
      group => `${group.style}, ${group.role ?? 'no role'}: ${group.characters} letters${group.kept ? ', kept' : ''}`,
    )
  return [plan.title, ...rows, ...(plan.rows.length > 12 ? [`and ${plan.rows.length - 12} more`] : []), ...groups]
}

/** What wishes of any kinds write. What is refused counts, too; as a hash its words do not. */
function writes(
  session: DocumentSession,
  wish: string,
  wishes: readonly object[],
  leftOut: readonly RowKey[] = [],
): Written {
  try {
    const { plan, after } = registry.plan(session, registry.schema.parse({ wishes, leftOut }), { effects: false })
    // A swap that changes nothing is refused.
    if (plan.operations.length === 0 && wish.startsWith('swap')) throw new Error('nothing would change')
    return { wish, hash: hashOf(saveDocument(after.document)), told: toldOf(plan) }
  } catch (error) {
    return { wish, hash: 'refused', told: [error instanceof Error ? error.message : String(error)] }
  }
}

const otherFamily = (family: string, index = 0): string =>
  ['Literata', 'Work Sans', 'Spectral', 'Oswald'].filter(each => each.toLowerCase() !== family.toLowerCase())[index]!
const common = (session: DocumentSession, family: string) =>
  [...[...session.reading.cascade.scopes.values()][0]!.common.values()].filter(style => style.family === family)
const textsOf = (session: DocumentSession) =>
  session.reading.stories
    .flatMap(story => (story.role === 'deletions' ? [] : paragraphsOf(story.blocks)))
    .filter(each => !each.part.includes('/') && paragraphText(each).length > 12)

function isTextFrame(session: DocumentSession, part: string, node: number): boolean {
  try {
    takePiece(session.reading, part, node)
    return true
  } catch {
    return false
  }
}

/** Every kind of swap. */
function* swaps(session: DocumentSession): Generator<Written> {
  const { census } = session.detail
  const swap = (name: string, wishes: readonly object[], leftOut: readonly RowKey[] = []) =>
    writes(
      session,
      `swap ${name}`,
      wishes.map(wish => ({ type: 'swap', ...wish })),
      leftOut,
    )
  const named = [
    ...new Set([
      ...census.faces.filter(face => face.status !== 'unnamed').map(face => face.family),
      ...census.unused.map(each => each.family),
    ]),
  ]
  for (const family of named.slice(0, 8))
    yield swap(`all of ${family}`, [{ from: { family }, to: { family: otherFamily(family) }, symbols: true }])
  const [face, second] = census.faces.filter(each => each.status !== 'unnamed' && !each.symbols)
  if (!face) return
  const { family } = face
  const wish = { from: { family }, to: { family: otherFamily(family) } }
  for (const mode of ['x-height', 'cap-height', 'width'])
    yield swap(`size ${mode}`, [{ ...wish, size: { mode }, leading: 'follow' }])
  yield swap('leading stays', [{ ...wish, leading: 'stay' }])
  if (census.document.pages <= 30) yield swap('size by lines', [{ ...wish, size: { mode: 'lines' } }])
  yield swap('one face', [{ ...wish, from: { family, style: face.style } }])
  yield swap('to one face', [{ ...wish, to: { family: 'Work Sans', style: 'Medium' } }])
  if (second && second.family !== family)
    yield swap('two at once', [
      wish,
      { from: { family: second.family }, to: { family: otherFamily(second.family, 1) } },
    ])
  for (const [name, within] of Object.entries({
    body: { look: { place: 'body' } },
    page: { scope: { kind: 'pages', from: 0, to: 0 } },
    large: { look: { size: { least: 12 } } },
  }))
    yield swap(`within ${name}`, [{ ...wish, within, size: { mode: 'x-height' } }])
  const { plan } = registry.plan(session, registry.schema.parse({ wishes: [{ type: 'swap', ...wish }] }))
  yield swap(
    'a row left out',
    [wish],
    plan.rows.slice(0, 1).map(row => row.key),
  )
  yield swap('declarations left out', [wish], [declarationsKey])
  yield swap(
    'a group kept',
    [{ ...wish, size: { mode: 'x-height' } }],
    plan.groups.slice(0, 1).map(group => group.key),
  )
  const [paragraph] = textsOf(session)
  if (paragraph) {
    const place = { part: paragraph.part, node: paragraph.node }
    yield swap('a paragraph spared', [wish], [sparedKey(place.part, place.node)])
    yield swap('repaired', [
      wish,
      { type: 'repair', repair: { kind: 'tracking', ...place, amount: -10 } },
      { type: 'repair', repair: { kind: 'size', ...place, amount: 95 } },
    ])
  }
}

/** Every kind of recast. */
function* recasts(session: DocumentSession): Generator<Written> {
  const { census } = session.detail
  const recast = (name: string, request: object) => writes(session, `recast ${name}`, [{ type: 'recast', ...request }])
  const [face] = census.faces.filter(each => each.status !== 'unnamed' && !each.symbols)
  if (face) {
    yield recast('size and tracking of a family', {
      find: { look: { family: face.family } },
      change: { size: { percent: 104 }, tracking: 5 },
    })
    yield recast('a family for large text', {
      find: { look: { size: { least: 12 } } },
      change: { family: 'Oswald', italic: false },
    })
  }
  yield recast('words', { find: { words: { text: 'the' }, look: {} }, change: { words: 'this' } })
  yield recast('an expression', {
    find: { words: { text: '(\\d)(\\d)', expression: true }, look: {} },
    change: { words: '$2$1', weight: 700 },
  })
  yield recast('look of words', {
    find: { words: { text: 'and' }, look: {} },
    change: { color: '#1f6f6b', underlined: true, case: 'uppercase', leading: { percent: 130 }, language: 'de-DE' },
  })
  yield recast('settling strays', { find: { look: { stray: true } }, change: { settle: true } })
  const [paragraphStyle] = common(session, 'paragraph').filter(style => style.name !== 'Standard')
  const [textStyle] = common(session, 'text')
  if (paragraphStyle)
    yield recast('a paragraph style', {
      find: { words: { text: 'and' }, look: {} },
      change: { paragraphStyle: paragraphStyle.name, settle: true },
    })
  if (textStyle)
    yield recast('a character style', {
      find: { words: { text: 'and' }, look: {} },
      change: { characterStyle: textStyle.name },
    })
  const [color] = census.colors ?? []
  if (color)
    yield recast('a colour', { find: { look: {} }, change: {}, colors: [{ from: color.color, to: '#123456' }] })
}

/** Every kind of wish about styles. */
function* styleWishes(session: DocumentSession): Generator<Written> {
  const plan = (name: string, wishes: readonly object[]) => writes(session, `styles ${name}`, wishes)
  const everything = { kind: 'document' }
  for (const group of groupIds) yield plan(`settle ${group}`, [{ type: 'settle', scope: everything, groups: [group] }])
  yield plan('settle idle', [{ type: 'settle', scope: everything, groups: ['face', 'size'], idleOnly: true }])
  const texts = textsOf(session)
  const strayed = texts.find(each =>
    paragraphRuns(each, session.reading.cascade, 'body').runs.some(run => !run.style.settled(run.slot)),
  )
  const paragraph = strayed ?? texts[Math.floor(texts.length / 2)]
  const styles = common(session, 'paragraph')
  const [first, second] = styles.filter(style => style.name !== 'Standard')
  const changes = {
    text: { 'fo:font-size': '13pt', 'fo:letter-spacing': '0.2pt' },
    fonts: { western: { family: 'Literata' } },
  }
  yield plan('make', [
    { type: 'make', family: 'paragraph', displayName: 'Made here', changes },
    { type: 'make', family: 'text', displayName: 'Made words', changes: { text: { 'fo:font-weight': 'bold' } } },
  ])
  for (const kind of ['body', 'frame', 'shape', 'title', 'outline1', 'cell', 'note', 'header'])
    yield plan(`start ${kind}`, [
      { type: 'start', kind, values: { fonts: { western: { family: 'Literata' } }, text: { 'fo:font-size': '11pt' } } },
    ])
  if (first) {
    yield plan('edit', [{ type: 'edit', family: 'paragraph', name: first.name, changes }])
    yield plan('rename', [
      { type: 'edit', family: 'paragraph', name: first.name, changes: { displayName: 'Renamed here' } },
    ])
    yield plan('fold', [{ type: 'fold', family: 'paragraph', from: first.name, to: second?.name ?? null }])
    yield plan('delete', [{ type: 'fold', family: 'paragraph', from: first.name, to: null }])
  }
  if (!paragraph) return
  const { part, node } = paragraph
  const text = paragraphText(paragraph)
  const whole = { kind: 'ranges', ranges: [{ part, node, from: 0, to: text.length }] }
  const stray = paragraphRuns(paragraph, session.reading.cascade, 'body').runs.find(run => !run.style.settled(run.slot))
  const some = { kind: 'ranges', ranges: [{ part, node, from: stray?.start ?? 2, to: stray?.end ?? 9 }] }
  if (first) {
    yield plan('apply', [
      {
        type: 'apply',
        style: { family: 'paragraph', name: first.name },
        scope: whole,
        strays: 'settle',
        keep: ['weight', 'posture'],
      },
    ])
    yield plan('apply, strays kept', [
      { type: 'apply', style: { family: 'paragraph', name: first.name }, scope: whole, strays: 'keep' },
    ])
    yield plan('rules', [
      { type: 'make', family: 'text', displayName: 'Rule words', changes: { text: { 'fo:font-style': 'italic' } } },
      {
        type: 'rules',
        style: first.name,
        patterns: [
          { id: 'r1', title: 'Figures', on: true, style: first.name, character: 'Rule_20_words', pattern: '\\d+' },
        ],
        leadIns: [],
      },
    ])
  }
  yield plan('adopt words', [{ type: 'adopt', family: 'text', displayName: 'Adopted', scope: some }])
  yield plan('adopt a paragraph', [{ type: 'adopt', family: 'paragraph', displayName: 'Adopted whole', scope: whole }])
  yield plan('teach', [{ type: 'teach', scope: whole }])
  yield plan('start like', [{ type: 'start-like', kind: 'frame', part, node, offset: 3 }])
  const voices = session.detail.census.voices.filter(voice => voice.slot === 'western')
  if (voices.length > 1)
    yield plan('fold a voice', [{ type: 'fold-voice', from: voices.at(-1)!.key, to: voices[0]!.key }])
  if (voices[0])
    yield plan('settle a voice', [
      { type: 'settle', scope: { kind: 'voice', key: voices[0].key }, groups: ['face', 'size'] },
    ])
  for (const { language } of listLanguages(session.reading).slice(0, 3)) {
    yield plan(`show ${language}`, [{ type: 'show', language }])
    yield plan(`split ${language}`, [{ type: 'split', apart: { kind: 'language', language } }])
  }
  yield plan('several', [
    { type: 'settle', scope: everything, groups: ['face', 'size'], keep: ['weight'] },
    { type: 'adopt', family: 'paragraph', displayName: 'Adopted then', scope: whole },
    { type: 'settle', scope: whole, groups: ['tracking'] },
  ])
  const frame = texts.find(each => each.holder?.kind === 'frame' && isTextFrame(session, each.part, each.holder.node))
  if (frame?.holder) {
    const piece = takePiece(session.reading, frame.part, frame.holder.node)
    yield plan('a kept frame', [{ type: 'piece', part, node, x: 40, y: 60, withText: true, piece }])
  }
  if (frame && first)
    yield plan('apply to a frame', [
      {
        type: 'apply',
        style: { family: 'paragraph', name: first.name },
        scope: { kind: 'frame', part: frame.part, node: frame.holder!.node },
        strays: 'settle',
      },
    ])
}

/** Putting words in order. */
function* cleaned(session: DocumentSession): Generator<Written> {
  const wish = { emptyParagraphs: true, doubleSpaces: true, edgeSpaces: true, tabIndents: true, straightQuotes: true }
  yield writes(session, 'words in order', [{ type: 'clean-up', ...wish }])
}

/** A face set on a target of each kind. */
function* typeSet(session: DocumentSession): Generator<Written> {
  const set = (name: string, on: object, more: object = {}) =>
    writes(session, `type ${name}`, [{ type: 'set-type', to: { family: 'Literata' }, on, ...more }])
  const [paragraph] = textsOf(session)
  if (paragraph) {
    const { part, node, holder } = paragraph
    yield set('words', { kind: 'ranges', ranges: [{ part, node, from: 2, to: 9 }] }, { size: 'equal' })
    if (holder?.kind === 'frame') yield set('a frame', { kind: 'frame', part, node: holder.node })
  }
  for (const family of ['paragraph', 'text', 'presentation', 'graphic', 'table-cell']) {
    const [style] = common(session, family).filter(each => each.name !== 'Standard')
    if (style) yield set(`${family} style`, { kind: 'style', family, name: style.name }, { size: 'equal' })
  }
  for (const role of ['body', 'heading', 'note']) yield set(role, { kind: 'role', role })
  const face = session.detail.census.faces.find(each => each.status !== 'unnamed' && !each.symbols)
  if (face) yield set('a family', { kind: 'family', family: face.family }, { size: 'equal' })
  for (const start of ['body', 'frame', 'title', 'note']) yield set(`default ${start}`, { kind: 'default', start })
}

/** Pairs of letters, levels, places put right, findings accepted. */
function* places(session: DocumentSession): Generator<Written> {
  const face = session.detail.census.faces.find(each => each.status !== 'unnamed' && !each.symbols)
  const texts = textsOf(session)
  const [first] = texts
  if (!face || !first) return
  const { part, node } = first
  const pair = { family: face.family, left: 'T', right: 'o', amount: -40 }
  yield writes(session, 'kern a family', [
    { type: 'kern', pairs: [pair, { ...pair, left: 'e', right: 'r', amount: 12 }] },
  ])
  yield writes(session, 'kern a face', [
    { type: 'kern', pairs: [{ ...pair, style: face.style, left: 'a', right: 'n' }] },
  ])
  yield writes(session, 'kern a place', [{ type: 'kern', pairs: [], places: [{ part, node, from: 3, amount: 25 }] }])
  yield writes(session, 'levels', [
    {
      type: 'levels',
      levels: [
        { placeholder: 'title', setting: { family: 'Oswald', size: 30 } },
        { placeholder: 'outline', level: 2, setting: { size: 15, leading: { value: 120, unit: 'percent' } } },
      ],
    },
  ])
  const text = paragraphText(first)
  yield writes(session, 'mend', [
    {
      type: 'mend',
      places: [
        { kind: 'words', part, node, from: 2, to: 5, before: text.slice(2, 5), after: '“new”' },
        { kind: 'level', part, node: texts.at(-1)!.node, level: 2 },
      ],
    },
  ])
  const key = { check: 'faces.absent', says: 'absent', text: text.slice(0, 20), around: '' }
  yield writes(session, 'accept', [{ type: 'accept', findings: [key], reason: 'it is meant' }])
}

/** Drawing up, and dressing in two houses. */
function* housed(session: DocumentSession): Generator<Written> {
  yield writes(session, 'draw up', [{ type: 'draw-up' }])
  yield writes(session, 'draw up within half a point', [
    { type: 'draw-up', tolerance: 0.5, headings: 'all', sweep: true },
  ])
  const proposal = proposeStyles(session.reading, { tolerance: 0, choices: [], dropped: () => false })
  const [one, other] = proposal.paragraphs
  if (one)
    yield writes(session, 'draw up, one renamed', [
      { type: 'draw-up', choices: [{ voice: one.voice, family: 'paragraph', name: 'Called here', role: 'lead' }] },
    ])
  if (one && other)
    yield writes(session, 'draw up, two as one', [
      {
        type: 'draw-up',
        choices: [{ voice: other.voice, family: 'paragraph', into: { kind: 'voice', voice: one.voice } }],
      },
    ])
  const dress = (name: string, house: object, more: object = {}) =>
    writes(session, `dress ${name}`, [{ type: 'dress', house, ...more }])
  yield dress('first house', saltmereLine)
  yield dress('second house, drawn up, in its names', winterService, { drawUp: true, names: 'house' })
  yield dress('strays and body kept', winterService, { strays: 'keep', keep: ['body'] })
}

/** What every kind of wish writes into a document: the net under every move of the code that plans. */
export function* everyWish(session: DocumentSession): Generator<Written> {
  yield* swaps(session)
  yield* recasts(session)
  yield* styleWishes(session)
  yield* cleaned(session)
  yield* typeSet(session)
  yield* places(session)
  yield* housed(session)
}
