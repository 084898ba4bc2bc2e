import { fontAttributes } from '../../document/font-attributes'
import { points } from '../../document/lengths'
import { takenNames } from '../../document/style-names'
import { percent, slotAttributes, weightNumber } from '../../style/properties'
import type { DrawnWords } from './draw-words'
import type { DrawnParagraph, Gathered } from './gather'
import type { Look } from './look'
import type { DrawnStyle } from './model'
import type { Purpose } from './purposes'
import { vocabularyOf, type Departing, type Difference, type Vocabulary } from './vocabulary'
import type { DrawUpChoice } from './wish'

/** A style in the making with its name. */
export interface Named {
  displayName: string
}

/** The language that most of a document is written in; '' where none is said. */
export function languageOf(paragraphs: readonly DrawnParagraph[]): string {
  const counts = new Map<string, number>()
  for (const { effective, characters, slots } of paragraphs) {
    const slot = slots.has('asian') && !slots.has('western') ? 'asian' : 'western'
    const { language } = effective.slots[slot]
    counts.set(language, (counts.get(language) ?? 0) + characters)
  }
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? ''
}

/** Names of a family that are taken, and those given since. */
class Names {
  private readonly taken: Set<string>

  constructor(gathered: Gathered, family: string) {
    const scope = [...gathered.cascade.scopes.values()].at(-1)
    this.taken = new Set(
      scope ? [...takenNames(scope.part, family)].flatMap(each => each).map(each => each.toLowerCase()) : [],
    )
  }

  /** The first of some names that is free, or the last with a number. */
  give(...wanted: readonly string[]): string {
    let name = wanted.find(each => !this.taken.has(each.toLowerCase()))
    for (let number = 2; name === undefined; number++) {
      const next = `${wanted.at(-1)!} ${number}`
      if (!this.taken.has(next.toLowerCase())) name = next
    }
    this.taken.add(name.toLowerCase())
    return name
  }
}

/**
 * Names of drawn styles by what they are for, in the document's language; of several with one purpose the largest has the
 * plain name, all others what tells them apart from it.
 */
export function nameStyles(
  gathered: Gathered,
  styles: readonly DrawnStyle[],
  words: readonly DrawnWords[],
  purposes: ReadonlyMap<DrawnStyle, Purpose>,
  choices: readonly DrawUpChoice[],
) {
  const vocabulary = vocabularyOf(languageOf(gathered.paragraphs))
  const chosen = (family: 'paragraph' | 'text', voice: string) =>
    choices.find(each => each.family === family && each.voice === voice)?.name
  const ofParagraphs = new Names(gathered, 'paragraph')
  const paragraphs = new Map<DrawnStyle, Named>()
  const firsts = new Map<string, DrawnStyle>()
  for (const style of [...styles].sort((a, b) => b.characters - a.characters)) {
    const purpose = purposes.get(style)!
    const plain =
      purpose.kind === 'heading' ? `${vocabulary.heading} ${purpose.level}` : vocabulary.purposes[purpose.kind]
    const name = chosen('paragraph', style.voice)
    const first = firsts.get(plain)
    if (!first) firsts.set(plain, style)
    const apart = first ? differencesOf(style, first, vocabulary) : []
    paragraphs.set(style, {
      displayName: ofParagraphs.give(
        name ?? plain,
        ...apart.map((_, at) => `${plain}, ${apart.slice(0, at + 1).join(', ')}`),
      ),
    })
  }
  const ofWords = new Names(gathered, 'text')
  const named = new Map<DrawnWords, Named>()
  for (const each of words)
    named.set(each, { displayName: ofWords.give(chosen('text', each.voice) ?? wordsName(each.says, vocabulary)) })
  return { paragraphs, words: named }
}

const sizeOf = (look: Look) => points(look[slotAttributes.western.size]) ?? 0

/** What tells a style from another of its purpose, in words. */
function differencesOf(style: DrawnStyle, first: DrawnStyle, { differences }: Vocabulary): string[] {
  const found: Difference[] = []
  const { look } = style
  const weight = (of: Look) => weightNumber(of[slotAttributes.western.weight])
  const placeOf = ({ members }: DrawnStyle) => members[0]!.paragraph.place
  if (placeOf(style) !== placeOf(first)) {
    if (placeOf(style) === 'table') found.push('in tables')
    if (placeOf(style) === 'frame') found.push('in frames')
  }
  if (weight(look) !== weight(first.look)) found.push(weight(look) > weight(first.look) ? 'strong' : 'light')
  if (look['fo:font-style'] !== first.look['fo:font-style'] && look['fo:font-style'] !== 'normal') found.push('slanted')
  if (Math.abs(sizeOf(look) / sizeOf(first.look) - 1) > 0.01)
    found.push(sizeOf(look) > sizeOf(first.look) ? 'large' : 'small')
  const alignment = (of: DrawnStyle) =>
    of.says.paragraph['fo:text-align'] ?? of.members[0]!.paragraphLook['fo:text-align'] ?? 'start'
  if (alignment(style) !== alignment(first)) {
    if (alignment(style) === 'center') found.push('centred')
    if (alignment(style) === 'end' || alignment(style) === 'right') found.push('right')
    if (alignment(style) === 'justify') found.push('justified')
  }
  if (look[fontAttributes.western.name] !== first.look[fontAttributes.western.name]) found.push('other face')
  if (look['fo:color'] !== first.look['fo:color'] && look['fo:color'] !== undefined) found.push('coloured')
  return found.map(each => differences[each])
}

/** What a character style is called, after what it does to words. */
function wordsName(says: Look, { words }: Vocabulary): string {
  const found: Departing[] = []
  const weight = says['fo:font-weight'] === undefined ? null : weightNumber(says['fo:font-weight'])
  const posture = says['fo:font-style']
  const position = says['style:text-position']
  const font = says[fontAttributes.western.name]
  if (weight !== null && weight >= 600) found.push(posture && posture !== 'normal' ? 'strong emphasis' : 'strong')
  else if (weight !== null) found.push('regular')
  if (posture && !found.includes('strong emphasis')) found.push(posture === 'normal' ? 'upright' : 'emphasis')
  if (position) found.push(/^(super|[1-9])/.test(position) ? 'superior' : 'inferior')
  if (font) found.push(/mono|courier|typewriter|consol/i.test(font) ? 'code' : 'other face')
  if (says['fo:text-transform'] === 'uppercase') found.push('capitals')
  if (says['fo:font-variant'] === 'small-caps') found.push('small capitals')
  if (says['style:text-underline-style'] && says['style:text-underline-style'] !== 'none') found.push('underlined')
  if (says['style:text-line-through-style'] && says['style:text-line-through-style'] !== 'none') found.push('struck')
  if (says['fo:color'] !== undefined) found.push('highlight')
  if (says['fo:background-color'] !== undefined) found.push('ground')
  const language = says['fo:language']
  const size = says['fo:font-size']
  if (found.length === 0 && size !== undefined && percent(size) === null) found.push('fine')
  if (found.length === 0 && language !== undefined) return `${words.language} ${language || '—'}`
  return found.length === 0
    ? words.words
    : found
        .slice(0, 2)
        .map(each => words[each])
        .join(', ')
}
