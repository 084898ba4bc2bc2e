import type { Census } from '../core/census/census'
import { faceName } from '../core/font/face'
import { sizeAndLeading } from '../core/census/voices'
import type { AbsentFace, AbsentPlace } from '../core/census/absent-model'
import type { Plan } from '../core/change/plan'
import type { Suggestion } from '../core/font/suggest'

/** Rows as columns of one width each. */
export const padded = (rows: readonly (readonly string[])[]): string[] => {
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
export const unlaidLines = (unlaid: Census['document']['unlaid']) =>
  unlaid.length === 0
    ? []
    : [`not laid out as asked: ${unlaid.map(each => `${each.feature} (${each.count})`).join('; ')}`]

/** The census for a terminal. */
export function censusText(census: Census): string {
  const { document, faces, voices } = census
  return [
    `${document.title || 'untitled'}: ${percentage(census.settled)} settled, ${census.characters} characters, ${document.pages} pages`,
    ...unlaidLines(document.unlaid),
    '',
    'Faces',
    ...padded(
      faces.map(face => [
        face.status === 'absent' ? '◇' : ' ',
        faceName(face.family, face.style),
        face.slot === 'western' ? '' : face.slot,
        String(face.characters),
        percentage(face.share),
        pageList(face.pages, document.pages),
        face.onlySpaces ? 'only spaces' : face.styles.slice(0, 3).join(', '),
        face.standIn ? `shown by ${face.standIn}` : '',
      ]),
    ),
    '',
    'Voices',
    ...padded(
      voices.map(voice => [
        faceName(voice.family, voice.style),
        sizeAndLeading(voice),
        String(voice.characters),
        voice.unowned ? 'nobody’s' : voice.styles.slice(0, 3).join(', '),
        voice.twinOf ? 'twin' : '',
      ]),
    ),
    ...census.frames
      .filter(frame => frame.lines > 0)
      .map(
        frame =>
          `\nFrame ${frame.name || 'without a name'} runs over: ${frame.lines} lines, ${frame.characters} ` +
          `characters${frame.page === null ? '' : `, on page ${frame.page + 1}`}`,
      ),
    ...(census.unused.length > 0
      ? ['', `Named, but no text is set in them: ${census.unused.map(each => each.family).join(', ')}`]
      : []),
  ].join('\n')
}

/** Rows are listed up to this many. */
const listed = 50

/** A plan, carried out or not, for a terminal. */
export function planText(plan: Plan, out: string | null): string {
  const effects = plan.effects!
  return [
    plan.title,
    ...plan.sentences.filter(sentence => sentence !== `${plan.title}.`),
    ...plan.sizes.map(size => `sizes go to ${size.percent} %, ${size.said}`),
    ...padded(
      plan.mappings.map(mapping => [
        faceName(mapping.from.family, mapping.from.style),
        '→',
        `${mapping.to.family} ${mapping.to.style}`,
        mapping.note,
        `${mapping.characters} characters`,
      ]),
    ),
    '',
    ...padded(
      plan.rows
        .slice(0, listed)
        .map(row => [
          row.included ? '✓' : ' ',
          row.page !== undefined && row.page >= 0 ? `page ${row.page + 1}` : '',
          row.title.slice(0, 60),
          String(row.count),
          row.before.slice(0, 60),
          row.included ? `→ ${row.after.slice(0, 60)}` : (row.reason ?? 'left out'),
        ]),
    ),
    ...(plan.rows.length > listed ? [`  and ${plan.rows.length - listed} more`] : []),
    '',
    `${plan.places} places; pages ${effects.pagesBefore} before, ${effects.pagesAfter} ` +
      `after; ${effects.paragraphsChanged} paragraphs change their number of lines; ${effects.overset.length} ` +
      `frames run over`,
    ...unlaidLines(effects.unlaid),
    ...(plan.missingGlyphs.length > 0
      ? [`missing signs: ${plan.missingGlyphs.map(each => `${each.character} (${each.count})`).join(' ')}`]
      : plan.mappings.length > 0
        ? ['no glyph is missing']
        : []),
    ...plan.left.map(each => `left: ${each.what} (${each.count}): ${each.reason}`),
    ...(plan.stale.length > 0 ? [`dropped, to be drawn anew: ${plan.stale.join(', ')}`] : []),
    out === null ? 'nothing was written' : `written: ${out}`,
  ].join('\n')
}

/** Absent faces, for a terminal. */
export function absentText(
  faces: readonly (AbsentFace & { readonly suggestions: readonly Suggestion[] })[],
  places: readonly AbsentPlace[],
): string {
  if (faces.length === 0) return 'no face is absent'
  return faces
    .map(face =>
      [
        `${face.status === 'absent' ? '◇' : '≈'} ${face.family}: ${
          face.onlySpaces
            ? face.characters === 1
              ? 'one space'
              : `${face.characters} spaces`
            : `${face.characters} characters`
        }` +
          `${face.emptyMarks > 0 ? `, ${face.emptyMarks} empty lines` : ''}` +
          `${face.standIn ? `, shown by ${face.standIn}` : ''}${
            face.pages.length > 0 ? `, on page ${face.pages.map(page => page + 1).join(', ')}` : ''
          }`,
        ...padded(
          face.layers.map(layer => [
            layer.layer,
            layer.characters > 0 ? `${layer.characters} characters` : '',
            layer.references > 0 ? `${layer.references} mentions` : '',
            layer.owners.slice(0, 4).join(', '),
          ]),
        ),
        ...face.suggestions.slice(0, 4).map(suggestion => `  could be ${suggestion.family}: ${suggestion.reason}`),
        ...places
          .filter(place => place.family === face.family)
          .slice(0, 3)
          .map(
            place =>
              `  ${place.empty ? 'an empty line' : `“${place.text.slice(0, 50)}”`}${place.page >= 0 ? `, page ${place.page + 1}` : ''}`,
          ),
      ].join('\n'),
    )
    .join('\n\n')
}
