import { decodeFromBase64 } from '@cantoo/pdf-lib'
import type { FaceRecord } from '../../font/face'
import { withHeld, type NamedLicence } from '../../font/held-licence'
import { licenceOf, type LicenceUse, type UseRight } from '../../font/licence'
import type { House } from '../../house/house'
import { zipFiles } from '../../package/zip-files'
import type { DocumentSession } from '../../session'
import { writeEpub } from '../epub/write'
import { writePdf, type PdfOptions, type PrintOptions } from '../pdf/write'
import { stylesToCss } from '../styles/css'
import { stylesTemplate } from '../styles/template'
import { stylesToTokens } from '../styles/tokens'
import { writeSite, type FaceWorks, type WebDocument, type WebOptions } from '../web/site'
import type { Handed, Handoff, PdfHandoff } from './request'

/** What handing on goes by beside the document. */
export interface HandoffContext {
  /** What the document is called where it has no title. */
  readonly name: string
  /** When it is said to be made: milliseconds since 1970. */
  readonly made: number
  /** The house that the document is linked to: colours with inks of their own are printed with those. */
  readonly house: House | null
  /** Licences that are held for faces. */
  readonly licences: readonly NamedLicence[]
}

/** What handing on works with. */
export interface HandoffWorks extends FaceWorks {
  /** A printing condition by its name; null for one that is not at hand. */
  readonly condition: (id: string) => PrintOptions['intent'] | null
  /** What colours mean that are given for a screen: an ICC profile. */
  readonly screen: () => Uint8Array
}

/** Something cannot be handed on as asked. Nothing was written. */
export class HandoffError extends Error {}

/** The right to put a face to some use: what is held for it, else what its file says. */
export const rightTo =
  (use: LicenceUse, { licences, made }: Pick<HandoffContext, 'licences' | 'made'>) =>
  (face: FaceRecord): UseRight | undefined =>
    withHeld(face.family, licenceOf(face), licences, new Date(made).toISOString().slice(0, 10)).uses.find(
      each => each.use === use,
    )

const endings = { text: 'ott', presentation: 'otp', drawing: 'otg' } as const

/**
 * Hands a document on.
 * @throws PdfError where a face may not be embedded, HandoffError where a printing condition is not at hand
 */
export async function handOff(
  session: DocumentSession,
  request: Handoff,
  context: HandoffContext,
  works: HandoffWorks,
): Promise<Handed> {
  const { kind } = session.document
  const plain = (text: string, ending: string, type: string, said: string): Handed => ({
    bytes: new TextEncoder().encode(text),
    ending,
    type,
    said: [said],
    left: [],
  })
  const web = (use: LicenceUse): WebOptions => ({ ...context, rightOf: rightTo(use, context) })
  switch (request.as) {
    case 'pdf':
      return pdf(session, request, context, works)
    case 'epub': {
      const book = await writeEpub(session, works, web('e-book'))
      const chapters = book.files.filter(({ path }) => path.startsWith('chapter')).length
      return {
        bytes: book.bytes,
        ending: 'epub',
        type: 'application/epub+zip',
        said: [`${chapters} ${chapters === 1 ? 'chapter' : 'chapters'}`],
        left: leftOf(book),
      }
    }
    case 'html': {
      const site = await writeSite(session, works, web('web page'))
      return {
        bytes: zipFiles(
          site.files.map(({ path, bytes }) => [path, bytes]),
          context.made,
        ),
        ending: 'zip',
        type: 'application/zip',
        said: [`${site.files.length} files, index.html first`],
        left: leftOf(site),
      }
    }
    case 'css':
      return plain(stylesToCss(session), 'css', 'text/css', 'a class for each named style')
    case 'tokens':
      return plain(stylesToTokens(session), 'tokens.json', 'application/json', 'typography for each named style')
    case 'template':
      return {
        bytes: stylesTemplate(session.document),
        ending: endings[kind],
        type: `application/vnd.oasis.opendocument.${kind === 'drawing' ? 'graphics' : kind}-template`,
        said: ['its styles, defaults and masters, without its text'],
        left: [],
      }
  }
}

/** What of a document's faces and pictures is not in what was written, in sentences. */
function leftOf({ faces, pictures }: Pick<WebDocument, 'faces' | 'pictures'>): string[] {
  const reasons = new Map<string, string[]>()
  for (const { name, reason } of faces) reasons.set(reason, [...(reasons.get(reason) ?? []), name])
  return [
    ...[...reasons].map(([reason, names]) => `Named, not in it: ${names.join(', ')}; ${reason}`),
    ...(pictures.length > 0 ? [`Not shown: ${pictures.join(', ')}`] : []),
  ]
}

/** @throws PdfError, HandoffError */
async function pdf(
  session: DocumentSession,
  request: PdfHandoff,
  context: HandoffContext,
  works: HandoffWorks,
): Promise<Handed> {
  const { as: _as, print: asked, ...options } = request
  const print = asked && printOptions(asked, context, works)
  const made = await writePdf(session.composition, session.typesetter, works.load, works.subsetter, {
    ...options,
    name: context.name,
    made: context.made,
    ...(print ? { print } : {}),
  } satisfies PdfOptions)
  const built = print ? 'PDF/X-4' : 'PDF/UA-1'
  return {
    bytes: made.bytes,
    ending: 'pdf',
    type: 'application/pdf',
    said: [
      `${made.pages} ${made.pages === 1 ? 'page' : 'pages'}`,
      made.lacks.length === 0 ? `built to ${built}` : `not said to be built to ${built}: ${made.lacks.join(', ')}`,
      ...(print ? [`for ${print.intent.description}`] : []),
    ],
    left: [
      ...(made.notEmbedded.length > 0 ? [`Named, not embedded: ${made.notEmbedded.join(', ')}`] : []),
      ...(made.pictures.length > 0 ? [`Shown as grey boxes: ${made.pictures.join(', ')}`] : []),
      ...(made.offPage > 0 ? [`Beside their pages, not in it: ${made.offPage}`] : []),
      ...session.composition.unlaid.map(({ feature, count }) => `Not set as the file asks: ${feature}, ${count}`),
    ],
  }
}

function printOptions(
  asked: NonNullable<PdfHandoff['print']>,
  { house }: HandoffContext,
  works: HandoffWorks,
): PrintOptions {
  const intent =
    'condition' in asked
      ? works.condition(asked.condition)
      : {
          condition: asked.name,
          description: asked.name,
          profile: decodeFromBase64(asked.profile),
        }
  if (!intent)
    throw new HandoffError(
      `The printing condition “${'condition' in asked ? asked.condition : asked.name}” is not at hand. Nothing was written.`,
    )
  const inks = house?.palette.flatMap(({ color, ink }) => (ink ? [{ color, ink }] : [])) ?? []
  return { intent, screen: works.screen(), inks }
}
