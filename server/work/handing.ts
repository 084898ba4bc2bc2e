import { setHeader, type H3Event } from 'h3'
import { handoffSchema, type Handed } from '../../core/format/handoff/request'
import type { House } from '../../core/house/house'
import type { DocumentRow } from '../../shared/api'
import type { Acting } from '../store/acting'
import { issuedHouse } from '../store/houses'
import { threadsFor } from './pool'
import { attachment } from './requests'
import { settingFor } from './setting'

/** The newest issued version of the house that a document is linked to; null where there is none. */
export async function linkedHouse(acting: Acting, { house: id }: Pick<DocumentRow, 'house'>): Promise<House | null> {
  return id === null ? null : ((await issuedHouse(acting, id)) ?? null)
}

/** As many characters of what is told go into a header. */
const toldLimit = 4_000

/** Answers with a file that was made, under a name; what it is and what is not in it stands in a header, as JSON. */
export function handedOn(event: H3Event, { bytes, ending, type, said, left }: Handed, name: string): Buffer {
  let room = toldLimit
  const told = left.flatMap(each => {
    const line = each.length > 300 ? `${each.slice(0, 299)}…` : each
    room -= line.length
    return room > 0 ? [line] : []
  })
  const more = left.length - told.length
  const notes = { said, left: more > 0 ? [...told, `And ${more} more.`] : told }
  setHeader(event, 'Content-Type', type)
  setHeader(event, 'X-Content-Type-Options', 'nosniff')
  setHeader(event, 'X-Handoff-Notes', encodeURIComponent(JSON.stringify(notes)))
  setHeader(event, 'Content-Disposition', attachment(`${name}.${ending}`))
  return Buffer.from(bytes)
}

/** A document's name without its ending. */
export const plainName = ({ fileName }: Pick<DocumentRow, 'fileName'>): string => fileName.replace(/\.\w+$/, '')

/** Answers with a report, as PDF. */
export function reportAsPdf(event: H3Event, bytes: Uint8Array, name: string): Buffer {
  setHeader(event, 'Content-Type', 'application/pdf')
  setHeader(event, 'X-Content-Type-Options', 'nosniff')
  setHeader(event, 'Content-Disposition', attachment(`${name}.pdf`))
  return Buffer.from(bytes)
}

/** Answers with a document that was made here, as PDF: a specimen, a type sheet. */
export async function madeAsPdf(event: H3Event, acting: Acting, bytes: Uint8Array, name: string): Promise<Buffer> {
  const setting = await settingFor(acting, { id: '', folder: null, house: null })
  const made = await threadsFor(acting).run({
    kind: 'handoff',
    bytes,
    ids: {},
    ...(setting === undefined ? {} : { setting }),
    request: handoffSchema.parse({ as: 'pdf' }),
    context: { name, made: Date.now(), house: null, licences: [] },
  })
  return handedOn(event, made, name)
}
