import { openDocument } from '../../core/document/open'
import { makeOdt } from './fixtures'

/*
 * People at a desk as programs: what they put there, type and have planned, and what the desk acknowledged of it, which must
 * be there ever after.
 */

/** What somebody waits for before they give up. Milliseconds. */
const patience = 30_000

/** A document that somebody works on: its newest version that was acknowledged, and what its text then says. */
export interface Own {
  readonly id: string
  readonly version: number
  /** Words that were typed into it and acknowledged. */
  readonly words: readonly string[]
  /** The node of its first paragraph: it keeps its number. */
  readonly paragraph: number
  /** What their browser sends along, where signing in is asked for. */
  readonly cookie?: string
}

/** How somebody asks: what they send, and who they are. */
interface Asked {
  readonly body?: object | Uint8Array
  readonly cookie?: string
}

/** Asks a server of the desk. @throws Error where it does not answer that it was done */
export async function ask<T>(base: string, path: string, { body, cookie }: Asked = {}): Promise<T> {
  const bytes = body instanceof Uint8Array
  const response = await fetch(`${base}${path}`, {
    method: body === undefined ? 'GET' : 'POST',
    headers: {
      ...(body === undefined || bytes ? {} : { 'content-type': 'application/json' }),
      ...(cookie === undefined ? {} : { cookie }),
    },
    body: body === undefined ? undefined : bytes ? (body as Uint8Array<ArrayBuffer>) : JSON.stringify(body),
    signal: AbortSignal.timeout(patience),
  })
  if (!response.ok) throw new Error(`${path}: ${response.status} ${await response.text()}`)
  return (await response.json()) as T
}

/** A letter of some paragraphs; the first begins with its words. */
function letter(words: string, paragraphs: number): Uint8Array {
  const body = Array.from({ length: paragraphs }, (_, at) =>
    at === 0 ? words : `Paragraph ${at} of a letter to the harbour office, which asks for a berth at the long pier.`,
  )
  return makeOdt({ body: body.map(text => `<text:p text:style-name="Standard">${text}</text:p>`).join('') })
}

/** Puts a letter on the shelf. @throws Error where it was not acknowledged */
export async function put(base: string, words: string, paragraphs = 30, cookie?: string): Promise<Own> {
  const bytes = letter(words, paragraphs)
  const { id } = await ask<{ id: string }>(base, `/api/documents?name=${encodeURIComponent(`${words}.odt`)}`, {
    body: bytes,
    cookie,
  })
  const part = openDocument(bytes).parts.get('content.xml')!
  const first = [...part.descendants()].find(each => each.name === 'text:p')!
  return { id, version: 1, words: [words], paragraph: first.id, cookie }
}

/** Types words at the beginning of a document. @throws Error where it was not acknowledged */
export async function type(base: string, own: Own, words: string): Promise<Own> {
  const edit = { type: 'text', part: 'content.xml', node: own.paragraph, from: 0, to: 0, text: `${words} ` }
  const { version } = await ask<{ version: { number: number } }>(base, `/api/documents/${own.id}/edit`, {
    body: { base: own.version, edits: [{ edit, firstId: 1_000_000 + own.version * 100 }] },
    cookie: own.cookie,
  })
  return { ...own, version: version.number, words: [...own.words, words] }
}

/** Has a size written into all text, by plan. @throws Error where it was not acknowledged */
export async function recast(base: string, own: Own, size: number): Promise<Own> {
  const { version } = await ask<{ version: { number: number } }>(base, `/api/documents/${own.id}/changes`, {
    body: { base: own.version, request: { wishes: [sized(size)], leftOut: [] } },
    cookie: own.cookie,
  })
  return { ...own, version: version.number }
}

const sized = (size: number) => ({ type: 'recast', change: { size: { points: size } } })

/** Begins a plan over documents and has it carried out once it is planned. Answers its id. */
export async function batch(base: string, documents: readonly string[], size: number): Promise<string> {
  const { id } = await ask<{ id: string }>(base, '/api/batches', {
    body: { request: { wishes: [sized(size)] }, documents },
  })
  for (let tries = 0; tries < 100; tries++) {
    const { state } = await ask<{ state: string }>(base, `/api/batches/${id}`)
    if (state === 'planned') break
    await new Promise(resolve => setTimeout(resolve, 100))
  }
  await ask(base, `/api/batches/${id}/apply`, { body: {} })
  return id
}

/** What is there now of a document: somebody else may have changed it. */
export async function lookAgain(base: string, own: Own): Promise<Own> {
  const { document } = await ask<{ document: { version: number } }>(base, `/api/documents/${own.id}`, {
    cookie: own.cookie,
  })
  return { ...own, version: document.version }
}
