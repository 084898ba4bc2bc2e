import type { Occurrence } from '../../census/occurrence'
import { pagesOf } from '../../census/text-pages'
import type { Role } from '../../document/rules'
import type { Paragraph } from '../../document/story-model'
import { findStyle } from '../../document/styles'
import type { Library } from '../../font/library'
import type { Reading } from '../../style/reading'
import type { Composition } from '../../typeset/compose'
import { objectSign } from '../../style/runs'
import { drawnLook, type StyleLook } from '../styles/style-list'
import { lookWords, saidWords } from './look-words'
import type { Named } from './names'
import { proposeStyles, type ProposalOptions } from './propose'
import { roleOf } from './purposes'

/** A style that draw-up proposes, as a list shows it. */
export interface ProposedStyle {
  readonly voice: string
  readonly family: 'paragraph' | 'text'
  readonly displayName: string
  readonly role: Role | null
  /** The title of the style it would go back to; '' for none. */
  readonly parent: string
  /** Paragraphs, or stretches of words. */
  readonly count: number
  readonly characters: number
  /** Of all characters. */
  readonly share: number
  readonly sample: string
  readonly words: string
  readonly look: StyleLook
  /** It is there already: its text looks as it says. */
  readonly exists: boolean
  /** Where its text stands, to walk through; 500 places at most. */
  readonly places: readonly Occurrence[]
}

/** As many places of each style are walked through. */
const placeLimit = 500

/** As much of its own text is shown of each style. */
const sampleLength = 70

const sampleOf = (text: string): string =>
  text.replaceAll(objectSign, '').replace(/\s+/g, ' ').trim().slice(0, sampleLength)

/** What draw-up would make of a document, as a list: paragraph styles first, each sort with the most text first. */
export function listProposals(
  reading: Reading,
  library: Library,
  composition: Composition | null,
  options: ProposalOptions,
): ProposedStyle[] {
  const where = pagesOf(composition)
  const placeOf = ({ part, node, place }: Paragraph, start: number, end: number): Occurrence => ({
    part,
    node,
    place,
    start,
    end,
    page: where(part, node, start, end)[0] ?? -1,
    face: '',
    voice: '',
  })
  const proposal = proposeStyles(reading, options)
  const all = Math.max(
    proposal.gathered.paragraphs.reduce((sum, each) => sum + each.characters, 0),
    1,
  )
  const titleOf = (name: string | null): string => {
    const [scope] = [...reading.cascade.scopes.values()]
    return (name !== null && scope && findStyle(scope, 'paragraph', name)?.displayName) || ''
  }
  const ofMembers = (members: (typeof proposal.paragraphs)[number]['members']) => {
    const shown = members.find(each => each.characters > 0) ?? members[0]!
    return {
      count: members.length,
      characters: members.reduce((sum, each) => sum + each.characters, 0),
      sample: sampleOf(shown.text),
      look: drawnLook(
        library,
        shown.voice,
        shown.slots.has('asian') && !shown.slots.has('western') ? 'asian' : 'western',
      ),
      places: members
        .filter(each => each.characters > 0)
        .slice(0, placeLimit)
        .map(each => placeOf(each.paragraph, 0, each.text.length)),
    }
  }
  const paragraphs = proposal.paragraphs.map(style => ({
    voice: style.voice,
    family: 'paragraph' as const,
    displayName: style.displayName,
    role: roleOf(style.purpose),
    parent: style.parent ? (style.parent as typeof style.parent & Named).displayName : titleOf(style.base),
    words: lookWords(style),
    exists: false,
    ...ofMembers(style.members),
  }))
  const taken = proposal.taken.map(({ voice, name, members }) => ({
    voice,
    family: 'paragraph' as const,
    displayName: titleOf(name),
    role: null,
    parent: '',
    words: 'looks as this style says',
    exists: true,
    ...ofMembers(members),
  }))
  const words = proposal.words.map(({ voice, displayName, says, stretches, characters }) => {
    const { member, run } = stretches.find(each => each.run.visible)!
    return {
      voice,
      family: 'text' as const,
      displayName,
      role: null,
      parent: '',
      words: saidWords(says),
      exists: false,
      count: stretches.length,
      characters,
      sample: sampleOf(member.text.slice(run.from, run.to)),
      look: drawnLook(library, run.style, 'western'),
      places: stretches.slice(0, placeLimit).map(each => placeOf(each.member.paragraph, each.run.from, each.run.to)),
    }
  })
  return [...[...paragraphs, ...taken].sort((a, b) => b.characters - a.characters), ...words].map(each => ({
    ...each,
    share: each.characters / all,
  }))
}
