import { z } from 'zod'
import { sameFamily } from '../document/font-family'
import { licenceUses, type Licence, type LicenceUse, type UseRight } from './licence'

/** A licence that somebody holds for faces: what it allows, how many people, until when, and who holds it. */
export const heldLicenceSchema = z.strictObject({
  families: z.array(z.string().trim().min(1).max(200)).min(1).max(200),
  uses: z.array(z.enum(licenceUses)).min(1).max(licenceUses.length),
  /** How many people may work with it; null where it does not say. */
  seats: z.int().min(1).max(1_000_000).nullable(),
  /** The last day on which it holds, as ISO 8601 has dates; null where it has no end. */
  until: z.iso.date().nullable(),
  holder: z.string().trim().max(200),
})
export type HeldLicence = z.infer<typeof heldLicenceSchema>

/** A held licence under its name. */
export interface NamedLicence extends HeldLicence {
  readonly name: string
}

/** Whether a licence is over on a day (ISO 8601). */
export const isOver = ({ until }: Pick<HeldLicence, 'until'>, today: string): boolean => until !== null && until < today

/** A held licence in words: “Harbour set, 5 seats, until 2027-03-31, held by the print desk”. */
export function licenceWords({ name, seats, until, holder }: NamedLicence): string {
  return [
    name,
    ...(seats === null ? [] : [`${seats} ${seats === 1 ? 'seat' : 'seats'}`]),
    ...(until === null ? [] : [`until ${until}`]),
    ...(holder === '' ? [] : [`held by ${holder}`]),
  ].join(', ')
}

/** What may be done with a face, by its file and by the licences that are held; and what has ended. */
export interface RightsHeld extends Licence {
  /** The last day of a licence that is over and that none took the place of; null where there is none such. */
  readonly ended: string | null
  /** Those that hold today, in words. */
  readonly held: readonly string[]
}

/**
 * Rights to a family with the licences held for it. What a held licence allows is allowed, whatever the file leaves open;
 * what an ended one allowed is no longer, unless the file's own licence is an open one.
 */
export function withHeld(family: string, licence: Licence, all: readonly NamedLicence[], today: string): RightsHeld {
  const own = all.filter(each => each.families.some(name => sameFamily(name, family)))
  const good = own.filter(each => !isOver(each, today))
  const over = own.filter(each => isOver(each, today))
  const uses = licence.uses.map((right): UseRight => {
    const allowing = good.find(each => each.uses.includes(right.use))
    if (allowing) return { use: right.use, right: 'allowed', from: licenceWords(allowing) }
    const ended = over.find(each => each.uses.includes(right.use))
    if (ended && !licence.open)
      return { use: right.use, right: 'not allowed', from: `${ended.name} ended on ${ended.until!}` }
    return right
  })
  const lost = good.length === 0 && over.length > 0 && !licence.open
  return {
    ...licence,
    uses,
    ended: lost
      ? over
          .map(each => each.until!)
          .sort()
          .at(-1)!
      : null,
    held: good.map(licenceWords),
  }
}

/** What a document is made for, and the licences that are held on a day (ISO 8601): what its faces are held against. */
export interface MadeFor {
  readonly uses: readonly LicenceUse[]
  readonly licences: readonly NamedLicence[]
  readonly today: string
}

/** Where nobody has said what it is made for, and no licence is held. */
export const madeForNothing: MadeFor = { uses: [], licences: [], today: '' }

/** Which of some uses a licence does not say are allowed. */
export const notAllowed = (licence: Pick<Licence, 'uses'>, wanted: readonly LicenceUse[]): UseRight[] =>
  licence.uses.filter(each => wanted.includes(each.use) && each.right !== 'allowed')
