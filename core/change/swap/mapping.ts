import type { FaceCensus } from '../../census/census'
import { sameFamily } from '../../document/font-family'
import { parseStyleName, styleName, type FaceRecord } from '../../font/face'
import { nearest, type Library } from '../../font/library'
import { PlanError, type FaceMapping } from '../plan'
import { wishFor, type SwapWish } from './wish'

const italicOf = (style: string) => /italic|oblique/i.test(style)
const weightOf = (style: string) => parseStyleName(style)?.weight ?? 400

function noteOf(
  from: { weight: number; italic: boolean },
  face: FaceRecord,
  chosen: boolean,
): { same: boolean; note: string } {
  const italic = face.slant === 'italic'
  if (face.weight === from.weight && italic === from.italic)
    return { same: true, note: chosen ? 'chosen, same weight' : 'same weight' }
  if (chosen) return { same: false, note: 'chosen' }
  const parts: string[] = []
  if (face.weight !== from.weight) parts.push(`nearest weight, ${face.weight}`)
  if (italic !== from.italic) parts.push(from.italic ? `no italic in ${face.family}` : `${face.family} is only italic`)
  return { same: false, note: parts.join('; ') }
}

/**
 * Maps faces weight by weight. Only faces that the new family has are ever chosen: no weight or slant is invented.
 * @throws PlanError when the new family or face is not in the library
 */
export function mapFaces(faces: readonly FaceCensus[], wishes: readonly SwapWish[], library: Library): FaceMapping[] {
  for (const { to } of wishes) {
    if (library.family(to.family).length === 0)
      throw new PlanError(`“${to.family}” is not in the library, so nothing can be set in it. Nothing was changed.`)
    if (to.style !== undefined && !library.named(to.family, to.style)) {
      throw new PlanError(
        `${to.family} has no face “${to.style}”. It has ${library
          .family(to.family)
          .map(face => face.style)
          .join(', ')}. Nothing was changed.`,
      )
    }
  }
  return faces.flatMap((face): FaceMapping[] => {
    const wish = wishFor(wishes, face)
    if (!wish) return []
    const from = {
      family: face.family,
      style: face.style,
      slot: face.slot,
      weight: weightOf(face.style),
      italic: italicOf(face.style),
    }
    const family = library.family(wish.to.family)
    const byHand =
      wish.faces.find(each => each.slot === face.slot && sameFamily(each.style, face.style))?.to ?? wish.to.style
    const picked = byHand === undefined ? undefined : library.named(wish.to.family, byHand)
    if (byHand !== undefined && !picked)
      throw new PlanError(`${wish.to.family} has no face “${byHand}”. Nothing was changed.`)
    const chosen = picked ?? nearest(family, from.weight, from.italic)
    return [
      {
        key: face.key,
        from,
        characters: face.characters,
        ...noteOf(from, chosen, picked !== undefined),
        to: {
          family: chosen.family,
          style: chosen.style || styleName(chosen.weight, chosen.slant === 'italic'),
          weight: chosen.weight,
          italic: chosen.slant === 'italic',
          hash: chosen.hash,
        },
      },
    ]
  })
}
