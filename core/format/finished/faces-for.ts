import { covers, needsNoGlyph, scriptOfCharacter, type FaceRecord } from '../../font/face'
import { nearest, requestOf, type Library } from '../../font/library'
import type { AddedText, SetStretch } from './drawn-text'
import { FinishedPdfError } from './open'

/** Who sets which stretch of a text, and all faces that have a part in it. */
export interface FacesFor {
  readonly stretches: readonly SetStretch[]
  readonly faces: readonly FaceRecord[]
}

/**
 * Which family sets which letters: the one that is asked for, and letters that it lacks the stand-in that was chosen for
 * their script, for the document, its folder or the desk. Nothing else is picked by itself.
 * @throws FinishedPdfError where the family is not there, or nobody was chosen for a letter that it lacks
 */
export function facesFor({ text, family, weight, italic }: AddedText, library: Library): FacesFor {
  const own = library.family(family)
  if (own.length === 0) throw new FinishedPdfError(`“${family}” is not in the library. Nothing was changed.`)
  const face = nearest(own, weight, italic)
  const standIns = library.scriptStandIns(requestOf(family, weight, italic))
  const faces = new Set<FaceRecord>([face])
  const stretches: SetStretch[] = []
  const lacking = new Set<string>()
  let current = face
  for (const character of text) {
    const code = character.codePointAt(0)!
    if (character === '\n' || needsNoGlyph(code)) {
      // Line ends and joiners go with what is around them.
    } else if (covers(face, code)) current = face
    else {
      const script = scriptOfCharacter(character)
      const standIn = script === null ? current : standIns.find(each => each.script === script)?.face
      if (standIn && covers(standIn, code)) faces.add((current = standIn))
      else lacking.add(character)
    }
    const last = stretches.at(-1)
    const setBy = current === face ? family : current.family
    if (last?.family === setBy) stretches[stretches.length - 1] = { ...last, text: last.text + character }
    else stretches.push({ text: character, family: setBy })
  }
  if (lacking.size > 0) throw new FinishedPdfError(lackingWords(face, [...lacking]))
  return { stretches, faces: [...faces] }
}

function lackingWords(face: FaceRecord, letters: readonly string[]): string {
  const scripts = [...new Set(letters.flatMap(each => scriptOfCharacter(each) ?? []))]
  const shown = letters.slice(0, 12).join(' ')
  return (
    `${face.fullName} has no ${shown}${letters.length > 12 ? ' …' : ''}` +
    `${scripts.length > 0 ? `, and no stand-in that has them is chosen for ${scripts.join(' and ')} letters` : ''}. ` +
    'Nothing was changed.'
  )
}
