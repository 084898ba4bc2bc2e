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
import type { DrawnParagraph, Gathered } from './gather'
import type { DrawnHolder } from './gather-holders'
import { proposeStyles, type Proposal, type ProposalOptions } from './propose'
import { proposeHolders, withText, type HolderProposal } from './propose-holders'
import { roleOf } from './purposes'
import type { DrawUpChoice } from './wish'

/** A style that draw-up proposes, as a list shows it. */
export interface ProposedStyle {
  readonly voice: string
  readonly family: DrawUpChoice['family']
  readonly displayName: string
  readonly role: Role | null
  /** The title of the style it would go back to; '' for none. */
  readonly parent: string
  /** Paragraphs, stretches of words, frames, or cells. */
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

type Unshared = Omit<ProposedStyle, 'share'>

/** What is told of the text that a style would have. */
type OfMembers = Pick<ProposedStyle, 'count' | 'characters' | 'sample' | 'look' | 'places'>

/** Tells of texts, frames and cells alike. */
class Listing {
  private readonly where: ReturnType<typeof pagesOf>

  constructor(
    private readonly reading: Reading,
    private readonly library: Library,
    composition: Composition | null,
  ) {
    this.where = pagesOf(composition)
  }

  private placeOf({ part, node, place }: Paragraph, start: number, end: number): Occurrence {
    const [page = -1] = this.where(part, node, start, end)
    return { part, node, place, start, end, page, face: '', voice: '' }
  }

  private titleOf(family: string, name: string | null): string {
    const [scope] = [...this.reading.cascade.scopes.values()]
    return (name !== null && scope && findStyle(scope, family, name)?.displayName) || ''
  }

  private ofMembers(members: readonly DrawnParagraph[]): OfMembers {
    const shown = members.find(each => each.characters > 0) ?? members[0]!
    const slot = shown.slots.has('asian') && !shown.slots.has('western') ? 'asian' : 'western'
    return {
      count: members.length,
      characters: members.reduce((sum, each) => sum + each.characters, 0),
      sample: sampleOf(shown.text),
      look: drawnLook(this.library, shown.voice, slot),
      places: members
        .filter(each => each.characters > 0)
        .slice(0, placeLimit)
        .map(each => this.placeOf(each.paragraph, 0, each.text.length)),
    }
  }

  private made(family: ProposedStyle['family'], style: Proposal['paragraphs'][number]) {
    return {
      voice: style.voice,
      family,
      displayName: style.displayName,
      role: roleOf(style.purpose),
      parent: style.parent
        ? (style.parent as typeof style.parent & Named).displayName
        : this.titleOf(family, style.base),
      words: lookWords(style),
      exists: false,
      ...this.ofMembers(style.members),
    }
  }

  private taken(family: ProposedStyle['family'], voice: string, name: string, members: readonly DrawnParagraph[]) {
    return {
      voice,
      family,
      displayName: this.titleOf(family, name),
      role: null,
      parent: '',
      words: 'looks as this style says',
      exists: true,
      ...this.ofMembers(members),
    }
  }

  private words({ voice, displayName, says, stretches, characters }: Proposal['words'][number]): Unshared {
    const { member, run } = stretches.find(each => each.run.visible)!
    return {
      voice,
      family: 'text',
      displayName,
      role: null,
      parent: '',
      words: saidWords(says),
      exists: false,
      count: stretches.length,
      characters,
      sample: sampleOf(member.text.slice(run.from, run.to)),
      look: drawnLook(this.library, run.style, 'western'),
      places: stretches
        .slice(0, placeLimit)
        .map(each => this.placeOf(each.member.paragraph, each.run.from, each.run.to)),
    }
  }

  /** Of a text: paragraph styles, those with the most text first, then character styles. */
  ofText({ paragraphs, taken, words }: Proposal): Unshared[] {
    return [
      ...mostFirst([
        ...paragraphs.map(style => this.made('paragraph', style)),
        ...taken.map(({ voice, name, members }) => this.taken('paragraph', voice, name, members)),
      ]),
      ...words.map(each => this.words(each)),
    ]
  }

  /** Of a deck or drawing: graphic styles of its loose frames, and cell styles of its tables. */
  ofHolders({ styles, taken }: HolderProposal): Unshared[] {
    const told = (holders: readonly DrawnHolder[]) => ({
      count: withText(holders).length,
      characters: holders.reduce((sum, each) => sum + each.characters, 0),
    })
    return mostFirst([
      ...styles.map(style => ({ ...this.made(style.family, style), ...told(style.holders) })),
      ...taken.map(({ family, voice, name, holders }) => ({
        ...this.taken(
          family,
          voice,
          name,
          holders.flatMap(each => each.members),
        ),
        ...told(holders),
      })),
    ])
  }
}

const mostFirst = <T extends { readonly characters: number }>(list: readonly T[]): T[] =>
  [...list].sort((a, b) => b.characters - a.characters)

/** What draw-up would make of a document, as a list. */
export function listProposals(
  reading: Reading,
  library: Library,
  composition: Composition | null,
  options: ProposalOptions,
): ProposedStyle[] {
  const listing = new Listing(reading, library, composition)
  const shared = ({ paragraphs }: Gathered, list: readonly Unshared[]): ProposedStyle[] => {
    const all = Math.max(
      paragraphs.reduce((sum, each) => sum + each.characters, 0),
      1,
    )
    return list.map(each => ({ ...each, share: each.characters / all }))
  }
  if (reading.document.kind === 'text') {
    const proposal = proposeStyles(reading, options)
    return shared(proposal.gathered, listing.ofText(proposal))
  }
  const proposal = proposeHolders(reading, options)
  return shared(proposal.gathered, listing.ofHolders(proposal))
}
