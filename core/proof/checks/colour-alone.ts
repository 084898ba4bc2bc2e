import { check, type Found } from '../check'
import { seenRuns, visibleCount, type ProofText, type Subject } from '../subject'

const shared = ['fo:text-transform', 'fo:font-variant', 'style:text-underline-style', 'fo:background-color'] as const

/** Words of a paragraph that look alike but for their colour, each colour with its stretches and letters. */
function alikes(text: ProofText): Map<string, Map<string, { letters: number; runs: { from: number; to: number }[] }>> {
  const groups = new Map<string, Map<string, { letters: number; runs: { from: number; to: number }[] }>>()
  for (const { run, words, values, color } of seenRuns(text)) {
    const { font, size, weight, posture } = values
    const look = JSON.stringify([
      font.family,
      size,
      weight,
      posture,
      ...shared.map(name => run.style.effective.shared[name]),
    ])
    const colors = groups.get(look) ?? new Map<string, { letters: number; runs: { from: number; to: number }[] }>()
    groups.set(look, colors)
    const own = colors.get(color) ?? { letters: 0, runs: [] }
    colors.set(color, own)
    own.letters += visibleCount(words)
    own.runs.push({ from: run.start, to: run.end })
  }
  return groups
}

function* alone(subject: Subject): Generator<Found> {
  for (const text of subject.texts) {
    if (text.runs.length < 2) continue
    for (const colors of alikes(text).values()) {
      const [, ...rare] = [...colors].sort((a, b) => b[1].letters - a[1].letters)
      for (const [color, { runs }] of rare)
        for (const { from, to } of runs)
          if (visibleCount(text.text.slice(from, to)) >= 3)
            yield { says: `Told from its neighbours by ${color} alone`, at: { text, from, to } }
    }
  }
}

export const colourAlone = check({
  id: 'colour-alone',
  group: 'reading',
  title: 'Difference by colour alone',
  severity: 'note',
  looksFor: 'Words inside a paragraph that differ from the rest of it in nothing but their colour.',
  source: 'WCAG 2.2, 1.4.1.',
  unseen: 'Whether the colour means anything; colours of charts.',
  find: alone,
})
