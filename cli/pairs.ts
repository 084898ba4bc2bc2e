import { catalogueOf } from '../core/font/catalogue'
import { candidates, nearestTo, pairRoles, usualPlace, type PairRole } from '../core/pairing/candidates'
import { reasonsFor } from '../core/pairing/reasons'
import { shippedLibrary } from '../server/library/shipped'
import { CommandError, fine, single, type Call, type Outcome } from './call'
import { padded } from './report'

/** A share that an option gives, or what is usual. @throws CommandError */
function shareOf(call: Call, name: '--proportions' | '--detail', usual: number): number {
  const given = single(call, name)
  if (given === undefined) return usual
  const value = Number(given)
  if (!(value >= 0 && value <= 1)) throw new CommandError(`${name} needs a number from 0 to 1`)
  return value
}

/** As many candidates are printed. */
const listed = 20

/** `pairs`: families that could go with one, nearest to a place of the plane first, each with its reasons. @throws CommandError */
export function pairs(call: Call): Outcome {
  const name = single(call, '--with')
  if (name === undefined) throw new CommandError('which family shall they go with? Say --with FAMILY')
  const role = (single(call, '--role') ?? 'body') as PairRole
  if (!pairRoles.includes(role)) throw new CommandError('--role is heading or body: what the face that is found is for')
  const entries = catalogueOf(shippedLibrary().library)
  const given = entries.find(entry => entry.family.toLowerCase() === name.toLowerCase())
  if (!given) throw new CommandError(`“${name}” is not in the library`)
  const at = {
    proportions: shareOf(call, '--proportions', usualPlace.proportions),
    detail: shareOf(call, '--detail', usualPlace.detail),
  }
  const scripts = given.scripts.includes('Latin') ? (['Latin'] as const) : given.scripts
  const found = nearestTo(candidates(entries, given, { role, scripts, uses: [] }), at)
  const told = found.slice(0, listed).map(({ entry, proportions, detail, mistake }) => ({
    family: entry.family,
    class: entry.classed.class,
    kind: entry.classed.kind,
    proportions,
    detail,
    mistake,
    reasons: role === 'body' ? reasonsFor(given, entry) : reasonsFor(entry, given),
  }))
  if (call.switches.has('--json')) return fine(JSON.stringify(told, null, 2))
  return fine(
    [
      `to go with ${given.family} as ${role}: near ${at.proportions} in proportions and ${at.detail} in detail ` +
        '(0 is alike, 1 wholly apart)',
      ...padded(
        told.map(each => [
          each.family,
          `${each.kind} ${each.class}`,
          each.proportions.toFixed(2),
          each.detail.toFixed(2),
          each.reasons.map(reason => `${reason.kind === 'against' ? 'but ' : ''}${reason.said}`).join('; '),
        ]),
      ),
    ].join('\n'),
  )
}
