import type { Census } from '../core/census/census'
import { faceName } from '../core/font/face'
import { sizeAndLeading } from '../core/census/voices'
import type { SwapPlan } from '../core/plan/plan'

const padded = (rows: readonly (readonly string[])[]): string[] => {
  const widths = rows[0]?.map((_, column) => Math.max(...rows.map(row => row[column]!.length))) ?? []
  return rows.map(row => `  ${row.map((cell, column) => cell.padEnd(widths[column]!)).join('  ')}`.trimEnd())
}
const percentage = (share: number) => `${(share * 100).toFixed(1)} %`

function pageList(pages: readonly number[], all: number): string {
  if (pages.length === 0) return 'masters alone'
  if (pages.length === all) return 'all pages'
  const numbers = pages.map(page => page + 1)
  return numbers.length > 6 ? `${numbers[0]}–${numbers.at(-1)}, ${numbers.length} pages` : numbers.join(', ')
}

/** What the pages do not show as asked, as a line. */
export const unlaidLines = (unlaid: Census['document']['unlaid']) => unlaid.length === 0 ? [] : [`not laid out as asked: ${unlaid.map(each => `${each.feature} (${each.count})`).join('; ')}`]

/** The census for a terminal. */
export function censusText(census: Census): string {
  const { document, faces, voices } = census
  return [
    `${document.title || 'untitled'}: ${percentage(census.settled)} settled, ${census.characters} characters, ${document.pages} pages`, ...unlaidLines(document.unlaid), '',
    'Faces', ...padded(faces.map(face => [face.status === 'absent' ? '◇' : ' ', faceName(face.family, face.style), face.slot === 'western' ? '' : face.slot, String(face.characters), percentage(face.share), pageList(face.pages, document.pages), face.onlySpaces ? 'only spaces' : face.styles.slice(0, 3).join(', '), face.standIn ? `shown by ${face.standIn}` : ''])), '',
    'Voices', ...padded(voices.map(voice => [faceName(voice.family, voice.style), sizeAndLeading(voice), String(voice.characters), voice.unowned ? 'nobody’s' : voice.styles.slice(0, 3).join(', '), voice.twinOf ? 'twin' : ''])),
    ...census.frames.filter(frame => frame.lines > 0).map(frame => `\nFrame ${frame.name || 'without a name'} runs over: ${frame.lines} lines, ${frame.characters} characters${frame.page === null ? '' : `, on page ${frame.page + 1}`}`),
    ...census.unused.length > 0 ? ['', `Named, but no text is set in them: ${census.unused.map(each => each.family).join(', ')}`] : [],
  ].join('\n')
}

/** A plan, carried out or not, for a terminal. */
export function swapText(plan: SwapPlan, left: readonly { what: string, reason: string, count: number }[], out: string | null): string {
  const effects = plan.effects!
  return [
    plan.title, ...padded(plan.mappings.map(mapping => [faceName(mapping.from.family, mapping.from.style), '→', `${mapping.to.family} ${mapping.to.style}`, mapping.note, `${mapping.characters} characters`])), '',
    ...padded(plan.rows.map(row => [row.included ? '×' : ' ', row.title, String(row.count), row.leftOut ?? ''])), '',
    `${plan.places} places; pages ${effects.pagesBefore} before, ${effects.pagesAfter} after; ${effects.paragraphsChanged} paragraphs change their number of lines; ${effects.overset.length} frames run over`,
    ...unlaidLines(effects.unlaid),
    ...plan.missingGlyphs.length > 0 ? [`missing signs: ${plan.missingGlyphs.map(each => `${each.character} (${each.count})`).join(' ')}`] : ['no glyph is missing'],
    ...left.map(each => `left: ${each.what} (${each.count}): ${each.reason}`), ...plan.stale.length > 0 ? [`dropped, to be drawn anew: ${plan.stale.join(', ')}`] : [],
    out === null ? 'nothing was written (no --out)' : `written: ${out}`,
  ].join('\n')
}
