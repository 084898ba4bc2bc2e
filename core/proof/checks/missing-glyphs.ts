import { covers, needsNoGlyph, type FaceRecord } from '../../font/face'
import { check, type Found } from '../check'
import { seenRuns, type Subject } from '../subject'

const privateUse = /\p{Co}/u

/** Whether a character is one that a face has to have, and has not. */
function isMissing(face: FaceRecord, character: string): boolean {
  const codePoint = character.codePointAt(0)!
  return !(/\s/.test(character) || needsNoGlyph(codePoint) || privateUse.test(character) || covers(face, codePoint))
}

function* missing(subject: Subject): Generator<Found> {
  // Letters come again and again: each is looked up once for a face.
  const fine = new Map<FaceRecord, Set<string>>()
  for (const text of subject.texts)
    for (const { run, words } of seenRuns(text)) {
      const { face, status } = subject.resolution(run.style, run.slot)
      if (status === 'absent' || status === 'unnamed') continue
      const known = fine.get(face) ?? new Set<string>()
      fine.set(face, known)
      let at = run.start
      for (const character of words) {
        const from = at
        at += character.length
        if (known.has(character)) continue
        if (!isMissing(face, character)) {
          known.add(character)
          continue
        }
        const code = `U+${character.codePointAt(0)!.toString(16).toUpperCase().padStart(4, '0')}`
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
