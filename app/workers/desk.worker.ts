import { partBytes } from '~~/core/package/container'
import type { AbsentPlace } from '~~/core/census/absent-model'
import { listKerning, type FaceKerning } from '~~/core/census/kerning'
import { matchText } from '~~/core/census/matching'
import { Library } from '~~/core/font/library'
import { suggestFaces } from '~~/core/font/suggest'
import { registry } from '~~/core/change/registry'
import { findRepairs } from '~~/core/change/repair/find-repairs'
import { swapSchema } from '~~/core/change/swap/wish'
import { criteriaLike } from '~~/core/change/recast/plan-recast'
import { DocumentSession } from '~~/core/session'
import { previewRule } from '~~/core/change/rules/rule-preview'
import { listLanguages } from '~~/core/change/languages/languages'
import { listChartText } from '~~/core/change/chart-text/chart-list'
import { listLevels } from '~~/core/change/levels/level-list'
import { compareDocuments } from '~~/core/compare/compare'
import { rehearse } from '~~/core/compare/rehearse'
import { beyondHouse } from '~~/core/proof/beyond-house'
import { measureToStyle } from '~~/core/house/to-style'
import { proofInSlices } from '~~/core/proof/proof'
import { type Finding } from '~~/core/proof/finding'
import { repairWishes } from '~~/core/proof/repairs'
import { styleGrounds } from '~~/core/proof/style-grounds'
import { listProposals } from '~~/core/change/draw-up/list-proposals'
import { tryFace } from '~~/core/change/set-type/try-face'
import { setTypeSchema } from '~~/core/change/set-type/wish'
import { takePiece } from '~~/core/change/kept-frame/set-piece'
import { listStarts } from '~~/core/change/defaults/start-list'
import { styleDetail } from '~~/core/change/styles/style-detail'
import { listStyles } from '~~/core/change/styles/style-list'
import { traceAt } from '~~/core/change/styles/trace-at'
import { displayPage, fontKey } from '~~/core/typeset/display'
import type { PageView } from '~~/core/typeset/drawing-pages'
import { HarfBuzz } from '~~/core/typeset/harfbuzz'
import { Typesetter } from '~~/core/typeset/look'
import type { Page } from '~~/core/typeset/page'
import { faceKey, voiceKey, voiceOf } from '~~/core/census/voices'
import { Shaper } from '~~/core/typeset/shaper'
import { namedColors } from '~~/core/document/colours'
import { proposePaints, usedColors } from '~~/core/house/house-paints'
import harfbuzzCode from 'harfbuzzjs/dist/harfbuzz.wasm?url'
import { answerAsks } from './answering'
import type { Asks, Drawn, SheetSize, Sheets, Side } from './messages'
import { plainParagraphs, plainStories } from '~~/core/desk/plain-text'
import { paragraphStyleNames, styledPlaces, styledSample } from '~~/core/desk/styled-text'
import { placedRemarks, quotedPlace } from '~~/core/desk/remark-places'
import { WordDesk } from '~~/core/desk/word-desk'
import { annotationsOf } from '~~/core/remarks/annotations'

/** Faces that are known to be needed, until they are. */
const fetched = new Map<string, Uint8Array>()
/** At most so many are fetched before they are asked for. */
const expectedLimit = 40

/** Fetches faces side by side. What cannot be had is asked for again when it is set in. */
async function expectFaces(hashes: readonly string[]): Promise<void> {
  await Promise.all(
    hashes.slice(0, expectedLimit).map(async hash => {
      const response = await fetch(`/api/faces/${hash}`).catch(() => null)
      if (response?.ok) fetched.set(hash, new Uint8Array(await response.arrayBuffer()))
    }),
  )
}

/** Faces are fetched when they are first set in: a worker may wait for them. */
function fetchFace(hash: string): Uint8Array | undefined {
  const known = fetched.get(hash)
  if (known) {
    fetched.delete(hash)
    return known
  }
  const request = new XMLHttpRequest()
  request.open('GET', `/api/faces/${hash}`, false)
  request.responseType = 'arraybuffer'
  try {
    request.send()
  } catch {
    return undefined
  }
  return request.status === 200 ? new Uint8Array(request.response as ArrayBuffer) : undefined
}

const engine = new HarfBuzz(
  (code, imports) =>
    new WebAssembly.Instance(new WebAssembly.Module(code as Uint8Array<ArrayBuffer>), imports as WebAssembly.Imports)
      .exports,
  new Uint8Array(await (await fetch(harfbuzzCode)).arrayBuffer()),
)
let words: WordDesk | null = null
/** What the last proof found, and in which state of the document. */
let proof: { readonly of: DocumentSession; readonly findings: readonly Finding[] } | null = null
/** Documents as plans would make them, by the ids of the plans. */
const plans = new Map<string, DocumentSession>()
let typesetter: Typesetter | null = null
let settingKey = ''
const sent = new Set<string>()

const open = (): WordDesk => {
  if (!words) throw new Error('no document is open')
  return words
}
const session = (side: Side): DocumentSession => {
  const found = side === 'now' ? words?.session : plans.get(side)
  if (!found) throw new Error('no document is open')
  return found
}
const sheetOf = (page: Page): SheetSize => ({
  width: page.geometry.width,
  height: page.geometry.height,
  number: page.number,
  name: page.name,
})
const sheets = ({ composition }: DocumentSession): Sheets => ({
  pages: composition.pages.map(sheetOf),
  notes: composition.notes.map(sheetOf),
  masters: composition.masters.map(sheetOf),
})

/** Some words that a family is set in, to show another one by: the longest place, cut at a word. */
function sampleOf(places: readonly AbsentPlace[]): string {
  const longest = places.reduce(
    (best, place) => (place.text.trim().length > best.length ? place.text.trim() : best),
    '',
  )
  return longest.length > 64 ? `${longest.slice(0, 64).replace(/\s+\S*$/, '')} …` : longest
}

function draw(side: Side, view: PageView, index: number): Drawn {
  const of = session(side)
  const composed = of.page(index, view)
  if (!composed) throw new Error('there is no such page any more')
  const page = displayPage(composed)
  const outlines: { face: string; glyph: number; path: string }[] = []
  for (const run of page.runs) {
    for (const glyph of run.glyphs) {
      const face = fontKey(run)
      const key = `${face}/${glyph}`
      if (sent.has(key)) continue
      sent.add(key)
      outlines.push({ face, glyph, path: typesetter!.shaper.outline(run.face, glyph, run.axes) })
    }
  }
  const styles = page.runs.map(run => (run.style >= 0 ? of.cascadeOf(run.part).styleOf(run.style) : undefined))
  const looks = page.runs.map((run, at) => {
    const style = styles[at]
    return style ? voiceOf(style, run.slot) : null
  })
  return {
    page,
    outlines,
    voices: looks.map(look => (look ? voiceKey(look) : '')),
    faces: looks.map(look => (look ? faceKey(look) : '')),
    families: looks.map(look => look?.family ?? ''),
    strays: page.runs.map(
      (run, at) => run.own && !run.part.includes('/') && styles[at] !== undefined && !styles[at].settled(run.slot),
    ),
  }
}

/** For so long is counted before whoever asked meanwhile goes first. Milliseconds. */
const slice = 12

/** Lets what was asked meanwhile be answered: a message to oneself stands behind those that are here already. */
function othersFirst(): Promise<void> {
  return new Promise(resolve => {
    const { port1, port2 } = new MessageChannel()
    port1.onmessage = () => {
      port1.close()
      resolve()
    }
    port2.postMessage(null)
  })
}

answerAsks<Asks>({
  async open({ bytes, ids, faces, expected, standIns, state }) {
    if (!typesetter) await expectFaces(expected)
    // Other faces or stand-ins set all text anew; glyphs that were sent stay known by their face.
    const setting = JSON.stringify([faces.length, faces.at(-1)?.hash, standIns])
    if (!typesetter || setting !== settingKey)
      typesetter = new Typesetter(new Library(faces, standIns), typesetter?.shaper ?? new Shaper(engine, fetchFace))
    settingKey = setting
    words = new WordDesk(await DocumentSession.start(bytes, typesetter, { ids }), state)
    plans.clear()
    const first = words.session.page(0)
    return { sheets: first ? [sheetOf(first)] : [], signed: words.session.document.signed }
  },
  async count() {
    const of = session('now')
    let began = Date.now()
    for (const _ of of.counting()) {
      if (Date.now() - began < slice) continue
      await othersFirst()
      // Somebody typed on: what is counted then will be asked for.
      if (words?.session !== of) return null
      began = Date.now()
    }
    return { sheets: sheets(of), census: of.detail.census }
  },
  page: ({ side, view, index }) => draw(side, view, index),
  remarkPlaces: ({ places }) => placedRemarks(open().session, places),
  quote: ({ range }) => quotedPlace(open().session, range),
  annotations: () => annotationsOf(open().session.document),
  occurrences: ({ key, of }) =>
    session('now')
      .detail.occurrences.filter(each => each[of] === key)
      .slice(0, 5000),
  plan({ id, request, effects }) {
    const start = performance.now()
    const { plan, after } = registry.plan(session('now'), registry.schema.parse(request), { effects })
    plans.set(id, after)
    const { operations: _operations, ...recorded } = plan
    return {
      plan: recorded,
      sheets: effects ? sheets(after).pages : null,
      milliseconds: performance.now() - start,
    }
  },
  drop({ id }) {
    plans.delete(id)
    return null
  },
  stand: () => null,
  repairs: ({ id, target }) => {
    const after = session(id)
    return findRepairs(
      session('now'),
      after,
      target,
      wish => registry.plan(after, { wishes: [wish], leftOut: [] }, { effects: false }).after,
    )
  },
  absent({ known }) {
    const { absent, typesetter: own } = session('now')
    return {
      places: absent.places,
      faces: absent.faces.map(face => ({
        ...face,
        suggestions: face.symbols
          ? []
          : suggestFaces(own.library, face.name, face.codePoints, known[face.family] ?? null),
        sample: sampleOf(absent.places.filter(place => place.family === face.family)),
      })),
    }
  },
  linesWith({ family, to }) {
    const wishes = [swapSchema.parse({ type: 'swap', from: { family }, to: { family: to } })]
    const { effects } = registry.plan(session('now'), { wishes, leftOut: [] }).plan
    return effects!.linesAfter - effects!.linesBefore
  },
  criteriaAt({ ranges }) {
    const { reading, typesetter: own } = session('now')
    const matches = matchText(reading, own.library, null, {
      look: {},
      scope: { kind: 'ranges', ranges: ranges.map(({ part, node, from, to }) => ({ part, node, from, to })) },
    })
    return matches[0] ? { look: criteriaLike(matches[0]), text: matches.map(match => match.text).join(' ') } : null
  },
  async picture({ href }) {
    const { container } = session('now').document
    const path = href.replace(/^\.\//, '')
    if (!container.byPath.has(path)) return { bitmap: null, svg: null, absent: true }
    try {
      const bytes = partBytes(container, path) as Uint8Array<ArrayBuffer>
      // Vector pictures cannot be decoded in a worker.
      if (/^\s*(<\?xml|<svg|<!--|\uFEFF)/.test(new TextDecoder().decode(bytes.subarray(0, 100))))
        return { bitmap: null, svg: bytes, absent: false }
      return { bitmap: await createImageBitmap(new Blob([bytes])), svg: null, absent: false }
    } catch {
      return { bitmap: null, svg: null, absent: false }
    }
  },
  edit: ({ edits }) => open().edit(edits),
  keep({ state }) {
    open().keep(state)
    return null
  },
  back: ({ state }) => open().back(state),
  move: ({ spot, move }) => open().walk.move(spot, move),
  clamp: ({ spot }) => open().clamp(spot),
  word: ({ spot }) => open().walk.word(spot),
  ranges: ({ one, other }) => open().walk.ranges(one, other),
  whole: ({ part, node }) => open().whole(part, node),
  together: ({ part, node, others }) => {
    const { walk } = open()
    const root = walk.root(part, node)
    return others.filter(each => walk.root(part, each) === root)
  },
  beside: ({ part, node, step }) => open().beside(part, node, step),
  copy: ({ ranges }) => open().copy(ranges),
  where: ({ spot, view, near }) => open().where(spot, view, near),
  find: ({ text, matchCase }) => open().find(text, matchCase),
  stories: () => plainStories(open().session),
  paragraphs: ({ from, to }) => plainParagraphs(open().session, from, to),
  frameOf: ({ part, node }) => open().frameOf(part, node),
  frame: ({ part, node }) => open().frame(part, node),
  holder: ({ view, page }) => open().holder(view, page),
  drawUp({ tolerance, choices, dropped }) {
    const { reading, composition, typesetter: own } = session('now')
    return listProposals(reading, own.library, composition, {
      tolerance,
      choices,
      dropped: (voice, family) => dropped.some(each => each.voice === voice && each.family === family),
    })
  },
  levels: () => listLevels(session('now').reading),
  chartText: () => listChartText(session('now').reading, session('now').composition),
  async compare({ bytes }) {
    const before = await DocumentSession.start(bytes, typesetter!)
    let began = Date.now()
    for (const _ of before.counting()) {
      if (Date.now() - began < slice) continue
      await othersFirst()
      began = Date.now()
    }
    plans.set('compare', before)
    return { comparison: compareDocuments(before, session('now')), sheets: sheets(before).pages }
  },
  rehearse() {
    const { rehearsal, there } = rehearse(session('now'))
    plans.set('compare', there)
    return { rehearsal, sheets: sheets(there).pages }
  },
  async proof({ house, checklist, madeFor }) {
    const of = session('now')
    proof = null
    const proofing = proofInSlices(of, { house, checklist, madeFor })
    let began = Date.now()
    for (;;) {
      const { done, value } = proofing.next()
      if (done) {
        proof = { of, findings: value.findings }
        return value
      }
      if (Date.now() - began < slice) continue
      await othersFirst()
      if (words?.session !== of) return null
      began = Date.now()
    }
  },
  proofRepairs({ findings }) {
    if (!proof || proof.of !== words?.session)
      throw new Error('The document has changed since it was proofed. It is looked over again; nothing was changed.')
    const numbers = new Set(findings)
    return repairWishes(
      proof.findings.filter(each => numbers.has(each.id)),
      proof.of,
      registry,
    )
  },
  toStyle: ({ house }) => measureToStyle(session('now').reading, house),
  limits: ({ house }) => beyondHouse(session('now'), house),
  dressedIn: () => session('now').reading.cascade.rules.house,
  paints: ({ house, before }) => proposePaints(usedColors(namedColors(session('now').document)), house, before),
  tryFace: ({ wish }) => tryFace(session('now'), setTypeSchema.parse(wish)),
  async kerning() {
    const { reading, typesetter: own } = session('now')
    const faces: FaceKerning[] = []
    for (const face of listKerning(reading, own)) {
      faces.push(face)
      await othersFirst()
    }
    return faces
  },
  styles: () => paragraphStyleNames(open().session),
  styleList: () => listStyles(session('now').reading, session('now').typesetter.library, session('now').composition),
  style({ family, name }) {
    const { reading, typesetter: own } = session('now')
    const detail = styleDetail(reading, family, name)
    if (!detail) return null
    const summary = listStyles(reading, own.library, null).find(each => each.family === family && each.name === name)
    return { ...detail, faceFeatures: summary ? [...(own.shaper.font(summary.look.face)?.features ?? [])].sort() : [] }
  },
  styleOccurrences: ({ family, name }) => styledPlaces(open().session, family, name),
  styleAt: ({ part, node }) => open().styleAt(part, node),
  languages: () => listLanguages(session('now').reading),
  takePiece: ({ part, node }) => takePiece(session('now').reading, part, node),
  starts: () => listStarts(session('now').reading, session('now').typesetter.library),
  master: ({ page }) => open().master(page),
  trace: ({ spot }) => traceAt(session('now').reading, spot.part, spot.node, spot.offset),
  previewRule: ({ rule }) => previewRule(session('now').composition, rule),
  styleGrounds: ({ family, name }) => styleGrounds(open().session, family, name),
  styleSample: ({ family, name }) => styledSample(open().session, family, name),
})
