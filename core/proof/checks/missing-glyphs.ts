import { covers, needsNoGlyph } from '../../font/face'
import { check, type Found } from '../check'
import { seenRuns, type Subject } from '../subject'

const privateUse = /\p{Co}/u

function* missing(subject: Subject): Generator<Found> {
  for (const text of subject.texts)
    for (const { run, words } of seenRuns(text)) {
      const { face, status } = subject.resolution(run.style, run.slot)
      if (status === 'absent' || status === 'unnamed') continue
      let at = run.start
      for (const character of words) {
        const from = at
        at += character.length
        const codePoint = character.codePointAt(0)!
        if (/\s/.test(character) || needsNoGlyph(codePoint) || privateUse.test(character) || covers(face, codePoint))
          continue
        const code = `U+${codePoint.toString(16).toUpperCase().padStart(4, '0')}`
        yield { says: `${face.family} has no “${character}” (${code})`, at: { text, from, to: at } }
      }
    }
}

export const missingGlyphs = check({
  id: 'missing-glyph',
  group: 'faces',
  title: 'Character that the face lacks',
  severity: 'error',
  looksFor: 'Characters for which the face that text is set in has no glyph, so that every reader shows another face.',
  source: 'The character map of each face (OpenType 1.9, cmap).',
  stage: 'swap',
  unseen: 'Glyphs that are there and drawn wrong or empty; characters of private use.',
  find: missing,
})
