import { describeValues } from '../../style/describe'
import type { Look } from '../draw-up/look'
import { attributesOfLook } from '../draw-up/model'

const told = ['style:font-name', 'fo:font-size', 'fo:line-height', 'fo:color']
const weightAndSlope = (look: Look): string[] =>
  ['fo:font-weight', 'fo:font-style'].filter(name => look[name] !== undefined && look[name] !== 'normal')

/** How text looks, in words, as far as houses speak of it. */
export function lookWords(look: Look): string {
  const { text, paragraph } = attributesOfLook(
    Object.fromEntries(
      [...told, ...weightAndSlope(look)].flatMap(name => (look[name] === undefined ? [] : [[name, look[name]]])),
    ),
  )
  return describeValues(text, paragraph, null).join(', ')
}
