import { levelOf } from '../../house/to-style'
import { check, type Found } from '../check'
import type { ProofText, Subject } from '../subject'

const segmenter = new Intl.Segmenter(undefined, { granularity: 'word' })
const wordsIn = (text: string): number => [...segmenter.segment(text)].filter(each => each.isWordLike).length

/** Text that stands on slides themselves, by its slide. */
function slidesOf({ texts }: Subject): Map<number, ProofText[]> {
  const slides = new Map<number, ProofText[]>()
  for (const text of texts) {
    if (text.story.role !== 'page' || text.text.trim() === '') continue
    const slide = slides.get(text.page) ?? []
    slides.set(text.page, slide)
    slide.push(text)
  }
  return slides
}

function* full(subject: Subject, { words, level }: Readonly<Record<'words' | 'level', number>>): Generator<Found> {
  const { house, medium, session } = subject
  if (medium !== 'deck') return
  const most = house?.limits.wordsPerSlide ?? words
  const deepest = house?.limits.deepestLevel ?? level
  for (const [page, texts] of slidesOf(subject)) {
    const count = texts.reduce((sum, { text }) => sum + wordsIn(text), 0)
    const longest = [...texts].sort((a, b) => b.text.length - a.text.length)[0]!
    if (count > most)
      yield {
        says: `${count} words on slide ${session.composition.pages[page]?.number ?? page + 1}, ${most} are meant at most`,
        at: { text: longest, from: 0, to: longest.text.length },
      }
    for (const text of texts) {
      const own = levelOf(text.paragraph, text.owner?.name ?? '')
      if (own > deepest)
        yield { says: `Level ${own}, ${deepest} are meant at most`, at: { text, from: 0, to: text.text.length } }
    }
  }
}

export const slides = check({
  id: 'full-slide',
  group: 'reading',
  title: 'Too much on a slide',
  severity: 'warning',
  looksFor: 'Slides with too many words, and levels too deep to be followed.',
  source: 'The limits of the house, else of the checklist.',
  unseen: 'Words in pictures and charts; whether the deck is read rather than shown.',
  limits: {
    words: { title: 'Words at most', usual: 60, least: 5, most: 1000 },
    level: { title: 'Deepest level', usual: 3, least: 1, most: 9 },
  },
  find: full,
})
