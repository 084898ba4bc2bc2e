import { documentPairs } from '../../core/census/pairs'
import { styleRoles } from '../../core/census/style-roles'
import { paragraphsOf } from '../../core/document/stories'
import type { DocumentSession } from '../../core/session'
import { paragraphRuns } from '../../core/style/runs'

const line = (value: unknown): string => JSON.stringify(value)
const short = (text: string) => (text.length > 24 ? `${text.slice(0, 24)}…` : text)

/** Every paragraph with what styles it: where it stands, its style, and the face, size and values of its runs. */
function* readTold({ reading }: DocumentSession): Generator<string> {
  for (const story of reading.stories) {
    yield `story ${story.role}`
    for (const paragraph of paragraphsOf(story.blocks)) {
      const { part, node, styleName, heading, holder } = paragraph
      const { text, runs } = paragraphRuns(paragraph, reading.cascade, story.role)
      yield `  ${part}#${node} ${styleName ?? '–'}${heading ? ` heading ${heading}` : ''}${holder ? ` in ${holder.kind}` : ''}`
      for (const { start, end, slot, style } of runs.slice(0, 6)) {
        const { slots, shared } = style.effective
        const { font, size, weight, posture } = slots[slot]
        const values = Object.entries(shared).map(([name, value]) => `${name}=${value}`)
        const settled = style.settled(slot) ? '' : ' stray'
        yield `    ${line(short(text.slice(start, end)))} ${slot} ${font.family} ${size} ${weight} ${posture}${settled} ${values.join(' ')}`
      }
    }
  }
}

/** What is counted: faces, voices, frames, colours, what is named and not used. */
function* countedTold({ detail: { census, occurrences } }: DocumentSession): Generator<string> {
  const { faces, voices, unused, frames, colors, pictures, ...sums } = census
  yield `sums ${line(sums)}`
  for (const each of faces) yield `face ${line(each)}`
  for (const each of voices) yield `voice ${line(each)}`
  for (const each of unused) yield `unused ${line(each)}`
  for (const each of frames) yield `frame ${line(each)}`
  for (const each of colors) yield `colour ${line(each)}`
  for (const each of pictures) yield `picture ${line(each)}`
  for (const each of occurrences.slice(0, 60)) yield `occurrence ${line(each)}`
}

/** What a document is read and counted as, a line for each thing. */
export function countedAs(session: DocumentSession): string {
  const roles = [...styleRoles(session.reading)].map(([key, role]) => `role ${line(key)} ${line(role)}`)
  const { faces, places } = session.absent
  const absent = [
    ...faces.map(face => `absent ${line(face)}`),
    ...places.slice(0, 40).map(each => `place ${line(each)}`),
  ]
  const pairs = documentPairs(session.reading, session.typesetter)
    .slice(0, 3)
    .flatMap(({ face, pairs: all }) => [
      `pairs of ${face.family} ${face.style}: ${all.length}`,
      ...all.slice(0, 8).map(pair => `  ${line({ ...pair, places: pair.places.slice(0, 2) })}`),
    ])
  return [...readTold(session), ...countedTold(session), ...roles, ...absent, ...pairs].join('\n')
}
