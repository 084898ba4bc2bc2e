import type { Properties } from '../document/styles'
import { differing, unsaid, type Look } from './draw-up/look'
import { attributesOfLook } from './draw-up/model'

/**
 * What a style has to say for itself so that its text looks as it did, now that what it goes back to is set otherwise. A colour
 * where nobody named one was that of the window (ODF 1.4 part 3, 20.395): it is said so. What else nobody said, no style can
 * take back.
 */
export function valuesToKeep(was: Look, now: Look): { readonly text: Properties; readonly paragraph: Properties } {
  const needed: Record<string, string> = {}
  for (const name of differing(was, now)) {
    const value = was[name]
    if (value !== undefined) needed[name] = value
    else if (name === 'fo:color') needed['style:use-window-font-color'] = 'true'
  }
  return attributesOfLook(needed)
}

/** The same of the values of a paragraph but its leading; `inList`: lists say some for it. */
export const paragraphValuesToKeep = (was: Look, now: Look, inList: boolean): Record<string, string> =>
  Object.fromEntries(
    differing(was, now).flatMap(name => {
      const value = was[name] ?? unsaid(name, inList)
      return value === undefined ? [] : [[name, value]]
    }),
  )
