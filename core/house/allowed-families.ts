import { sameFamily } from '../document/font-family'
import { weightBeyond } from '../font/named-weight'
import { settingsOf, type House } from './house'
import { familiesOfSetting } from './setting-values'

/**
 * Whether a family is of a house: among its faces, or named by one of its roles, or a weight of such a one that goes by a
 * name of its own. Null where the house names no family at all, so that none can be outside of it.
 */
export function allowedFamilies(house: House): ((family: string) => boolean) | null {
  const allowed = [
    ...house.faces.map(each => each.family),
    ...house.roles.flatMap(settingsOf).flatMap(setting => Object.values(familiesOfSetting(setting))),
  ].filter(each => each !== undefined)
  if (allowed.length === 0) return null
  const known = new Map<string, boolean>()
  return family => {
    const is =
      known.get(family) ?? allowed.some(each => sameFamily(each, family) || weightBeyond(family, each) !== null)
    known.set(family, is)
    return is
  }
}
