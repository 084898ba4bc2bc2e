import { slots } from '../../document/font-attributes'
import { describeValues } from '../../style/describe'
import { attributesOfSlots, isInitial, isLanguage, type Look } from './look'
import { attributesOfLook, type DrawnStyle } from './model'

/** How text of a style looks, in a few words: what is seen of it, and nothing that holds anyhow. */
export function lookWords({ look, members, says }: DrawnStyle): string {
  const seen = new Set(members.flatMap(member => [...member.slots]))
  const unseen = attributesOfSlots(slots.filter(slot => !seen.has(slot)))
  const told = Object.fromEntries(
    Object.entries(look).filter(
      ([name, value]) =>
        !unseen.has(name) && !isInitial(name, value) && (!isLanguage(name) || says.text[name] !== undefined),
    ),
  )
  const { text, paragraph } = attributesOfLook({ ...told, ...pick(says.paragraph, ['fo:text-align']) })
  return describeValues(text, { ...paragraph, ...pick(text, ['fo:text-align']) }, null).join(', ')
}

const pick = (values: Look, names: readonly string[]): Look =>
  Object.fromEntries(names.flatMap(name => (values[name] === undefined ? [] : [[name, values[name]]])))

/** What a character style says, in a few words. */
export const saidWords = (says: Look): string => describeValues(attributesOfLook(says).text, {}, null).join(', ')
