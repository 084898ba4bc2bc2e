import { copyFrame } from '../../document/frame-verbs'
import { replaceText } from '../../document/edit-text'
import { spansBy } from '../../document/span-places'
import { uniqueName } from '../../document/style-names'
import { addStyle, dropStyle } from '../../document/style-verbs'
import { splitSpansAt, unwrapSpan, wrapRange } from '../../document/spans'
import type { Paragraph, Story } from '../../document/story-model'
import type { Reading } from '../../style/reading'
import { standingParagraphs } from '../../document/stories'
import { objectSign, paragraphRuns, type TextRun } from '../../style/runs'
import { PlanError } from '../plan'
import type { Planner } from '../planner'

/** Text that is told apart: by its language, or by a character style. */
export type Apart =
  { readonly kind: 'language'; readonly language: string } | { readonly kind: 'style'; readonly name: string }

/** How much text is in each language, most first; '' where none is said. */
export function listLanguages(reading: Reading): { readonly language: string; readonly characters: number }[] {
  const counts = new Map<string, number>()
  for (const { paragraph, story } of standingParagraphs(reading)) {
    for (const run of paragraphRuns(paragraph, reading.cascade, story.role).runs) {
      const { language } = run.style.effective.slots[run.slot]
      counts.set(language, (counts.get(language) ?? 0) + run.end - run.start)
    }
  }
  return [...counts]
    .map(([language, characters]) => ({ language, characters }))
    .sort((a, b) => b.characters - a.characters)
}

const isApart = (run: TextRun, apart: Apart): boolean =>
  apart.kind === 'language'
    ? run.style.effective.slots[run.slot].language === apart.language
    : run.style.effective.layers.some(
        layer => layer.from === 'text' && layer.style.family === 'text' && layer.style.name === apart.name,
      )

/** Stretches of a paragraph that are told apart, and the others; white space between two of a kind goes with them. */
function stretchesOf(
  planner: Planner,
  paragraph: Paragraph,
  role: Story['role'],
  apart: Apart,
): { readonly from: number; readonly to: number; readonly inside: boolean }[] {
  const { text, runs } = paragraphRuns(paragraph, planner.reading.cascade, role)
  const found: { from: number; to: number; inside: boolean }[] = []
  for (const run of runs) {
    if (run.end === run.start || text.slice(run.start, run.end) === objectSign) continue
    const inside = isApart(run, apart)
    const last = found.at(-1)
    if (last && last.inside === inside && last.to === run.start) last.to = run.end
    else found.push({ from: run.start, to: run.end, inside })
  }
  return found
}

const hiddenTitle = 'Not shown'

/** The character style that hides text: made when it is first needed. */
function hidingStyle(planner: Planner): string {
  const known = [...planner.scope.common.values()].find(
    style => style.family === 'text' && style.displayName === hiddenTitle && style.text['text:display'] === 'none',
  )
  if (known) return known.name
  const name = uniqueName(planner.common.part, 'text', hiddenTitle)
  addStyle(planner.common, 'text', name, { text: { 'text:display': 'none' } })
  return name.name
}

/** Hides all text that is not in a language; what says no language stays. @throws PlanError */
export function showAlone(planner: Planner, language: string): void {
  showAll(planner)
  planner.reread()
  const style = hidingStyle(planner)
  let places = 0
  let characters = 0
  for (const { paragraph, story } of [...planner.paragraphs()]) {
    const { runs } = paragraphRuns(paragraph, planner.reading.cascade, story.role)
    const draft = planner.change.on(paragraph.part)
    for (const run of [...runs].reverse()) {
      const own = run.style.effective.slots[run.slot].language
      if (own === language || own === '' || run.end === run.start || run.inline.kind === 'frame') continue
      splitSpansAt(draft, paragraph.node, run.start)
      splitSpansAt(draft, paragraph.node, run.end)
      wrapRange(draft, paragraph.node, run.start, run.end, style)
      places++
      characters += run.end - run.start
    }
  }
  if (places === 0)
    throw new PlanError(`All text of this document is in ${language}, or says no language. Nothing was changed.`)
  planner.row({
    key: { what: 'other languages', language },
    stage: 'language',
    title: 'Text in other languages',
    count: places,
    characters,
    before: 'shown',
    after: `hidden by the character style ${hiddenTitle}`,
  })
}

/** Shows text again that was hidden so. Whether there was any. */
export function showAll(planner: Planner): boolean {
  const style = [...planner.scope.common.values()].find(
    each => each.family === 'text' && each.displayName === hiddenTitle && each.text['text:display'] === 'none',
  )
  if (!style) return false
  let shown = 0
  for (const path of planner.reading.cascade.scopes.keys()) {
    const draft = planner.change.on(path)
    for (const span of spansBy(draft.part, name => name === style.name)) {
      unwrapSpan(draft, span)
      shown++
    }
  }
  dropStyle(planner.common, style.node)
  planner.row({
    key: { what: 'hidden text' },
    stage: 'language',
    title: 'Hidden text',
    count: shown,
    before: 'hidden',
    after: 'shown',
  })
  return true
}

/**
 * Takes text that is told apart out of its frames, into frames of its own that lie where it was: each is a copy of the
 * frame, in which the other text is gone while its paragraphs stay, so that lines keep their places. @throws PlanError
 */
export function splitFrames(planner: Planner, apart: Apart): void {
  const frames = new Map<
    string,
    { part: string; node: number; paragraphs: { paragraph: Paragraph; role: Story['role'] }[] }
  >()
  for (const { paragraph, story } of planner.paragraphs()) {
    const { holder } = paragraph
    if (holder?.kind !== 'frame') continue
    const key = `${paragraph.part}#${holder.node}`
    const frame = frames.get(key) ?? { part: paragraph.part, node: holder.node, paragraphs: [] }
    frames.set(key, frame)
    frame.paragraphs.push({ paragraph, role: story.role })
  }
  let split = 0
  let characters = 0
  const places: { part: string; node: number }[] = []
  for (const { part: path, node, paragraphs } of frames.values()) {
    const all = paragraphs.map(({ paragraph, role }) => ({
      node: paragraph.node,
      stretches: stretchesOf(planner, paragraph, role, apart),
    }))
    const has = (inside: boolean) => all.some(each => each.stretches.some(stretch => stretch.inside === inside))
    if (!has(true) || !has(false)) continue
    const draft = planner.change.on(path)
    const twin = copyFrame(draft, node)
    for (const paragraph of all) {
      for (const stretch of [...paragraph.stretches].reverse()) {
        replaceText(draft, stretch.inside ? paragraph.node : twin.get(paragraph.node)!, stretch.from, stretch.to, '')
        if (stretch.inside) characters += stretch.to - stretch.from
      }
    }
    split++
    places.push({ part: path, node })
  }
  if (split === 0)
    throw new PlanError(
      'No frame holds such text beside other text, so there is nothing to split. Nothing was changed.',
    )
  planner.row({
    key: { what: 'split frames' },
    stage: 'language',
    title: 'Frames',
    count: split,
    characters,
    before: 'text together',
    after:
      apart.kind === 'language'
        ? `${apart.language} in frames of its own`
        : `${planner.style('text', apart.name).displayName} in frames of its own`,
    places,
  })
}
