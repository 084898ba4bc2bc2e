import { fontAttributes } from '../../document/font-attributes'
import { points } from '../../document/lengths'
import { takenNames } from '../../document/style-names'
import { percent, slotAttributes, weightNumber } from '../../style/properties'
import type { DrawnWords } from './draw-words'
import type { DrawnParagraph, Gathered } from './gather'
import { lookOf, type Look } from './look'
import { layersOf, type DrawnStyle } from './model'
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
  for (const { voice, characters, slots } of paragraphs) {
    const slot = slots.has('asian') && !slots.has('western') ? 'asian' : 'western'
    const { language } = voice.effective.slots[slot]
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
 * plain name, all others what tells them apart from it. `family`: that of the styles in the making.
 */
export function nameStyles(
  gathered: Gathered,
  styles: readonly DrawnStyle[],
  words: readonly DrawnWords[],
  purposes: ReadonlyMap<DrawnStyle, Purpose>,
  choices: readonly DrawUpChoice[],
  family: Exclude<DrawUpChoice['family'], 'text'> = 'paragraph',
) {
  const vocabulary = vocabularyOf(languageOf(gathered.paragraphs))
  const chosen = (of: DrawUpChoice['family'], voice: string) =>
    choices.find(each => each.family === of && each.voice === voice)?.name
  const ofParagraphs = new Names(gathered, family)
  // Names that were chosen come first: others step aside.
  const given = new Map<object, string>()
  for (const style of styles) {
    const name = chosen(family, style.voice)
    if (name !== undefined) given.set(style, ofParagraphs.give(name))
  }
  const paragraphs = new Map<DrawnStyle, Named>()
  const firsts = new Map<string, DrawnStyle>()
  for (const style of [...styles].sort((a, b) => b.characters - a.characters)) {
    const purpose = purposes.get(style)!
    const plain =
      purpose.kind === 'heading' ? `${vocabulary.heading} ${purpose.level}` : vocabulary.purposes[purpose.kind]
    const first = firsts.get(plain)
    if (!first) firsts.set(plain, style)
    // Graphic and cell styles go back to one that says nothing of a purpose.
    const other = first ?? (family === 'paragraph' ? baseOf(gathered, style) : style)
    const apart = differencesOf(style, other, vocabulary)
    paragraphs.set(style, {
      displayName:
        given.get(style) ??
        ofParagraphs.give(
          ...(first ? [] : [plain]),
          ...apart.map((_, at) => `${plain}, ${apart.slice(0, at + 1).join(', ')}`),
          ...(first && apart.length === 0 ? [plain] : []),
        ),
    })
  }
  const ofWords = new Names(gathered, 'text')
  const named = new Map<DrawnWords, Named>()
  for (const each of words) {
    const name = chosen('text', each.voice)
    if (name !== undefined) given.set(each, ofWords.give(name))
  }
  for (const each of words)
    named.set(each, { displayName: given.get(each) ?? ofWords.give(wordsName(each.says, vocabulary)) })
  return { paragraphs, words: named }
}

const sizeOf = (look: Look) => points(look[slotAttributes.western.size]) ?? 0

/** What a style is told apart from: another one, or the named style that it goes back to. */
interface Against {
  readonly look: Look
  readonly place: string
  readonly alignment: string
}

const alignmentIn = (values: Look) => values['fo:text-align'] ?? 'start'
const against = ({ look, members }: DrawnStyle): Against => ({
  look,
  place: members[0]!.paragraph.place,
  alignment: alignmentIn(members[0]!.paragraphLook),
})

/** The named style that a drawn one goes back to, where its first paragraph stands. */
function baseOf(gathered: Gathered, { members: [member], base }: DrawnStyle): Against {
  const layers = layersOf(gathered, member!, base, null)
  return {
    look: lookOf(gathered.resolve(layers)),
    place: member!.paragraph.place,
    alignment: alignmentIn(Object.assign({}, ...layers.map(layer => layer.paragraph)) as Look),
  }
}

/** What tells a style from another of its purpose, in words. */
function differencesOf(style: DrawnStyle, other: DrawnStyle | Against, { differences }: Vocabulary): string[] {
  const found: Difference[] = []
  const one = against(style)
  const two = 'members' in other ? against(other) : other
  const weight = ({ look }: Against) => weightNumber(look[slotAttributes.western.weight])
  if (one.place !== two.place) {
    if (one.place === 'table') found.push('in tables')
    if (one.place === 'frame') found.push('in frames')
  }
  if (weight(one) !== weight(two)) found.push(weight(one) > weight(two) ? 'strong' : 'light')
  const posture = ({ look }: Against) => look['fo:font-style']
  if (posture(one) !== posture(two) && posture(one) !== 'normal') found.push('slanted')
  const ratio = sizeOf(one.look) / sizeOf(two.look)
  if (Math.abs(ratio - 1) > 0.01) found.push(ratio > 1 ? 'large' : 'small')
  if (one.alignment !== two.alignment) {
    if (one.alignment === 'center') found.push('centred')
    if (one.alignment === 'end' || one.alignment === 'right') found.push('right')
    if (one.alignment === 'justify') found.push('justified')
  }
  const differs = (name: string) => one.look[name] !== two.look[name] && one.look[name] !== undefined
  if (differs(fontAttributes.western.name)) found.push('other face')
  if (differs('fo:color')) found.push('coloured')
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
