import type { MadeFor, NamedLicence } from '~~/core/font/held-licence'
import type { DocumentInfo } from '~~/shared/api'
import type { useKeptLicences } from './kept'

/** What a document is made for, and the licences that are kept: for checks, as plain data that a worker takes. */
export function madeForOf(
  info: DocumentInfo | null,
  { list }: Pick<ReturnType<typeof useKeptLicences>, 'list'>,
): MadeFor {
  const licences = list.map(({ name, data }): NamedLicence => ({ ...data, name }))
  const uses = info?.document.uses ?? []
  return JSON.parse(JSON.stringify({ uses, licences, today: new Date().toISOString().slice(0, 10) })) as MadeFor
}
