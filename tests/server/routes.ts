import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { houseFromPair } from '../../core/house/make-house'
import { projectFolder } from '../../server/library/files'
import type { Right } from '../../shared/rights'
import { anyId } from './studio'

/*
 * The routes of the server, read off its files: tests that hold for all of them ask all of them.
 */

/** Every route with its method, its address and the right it says. */
const folder = join(projectFolder(), 'server/api')
export const routes = readdirSync(folder, { recursive: true, encoding: 'utf8' })
  .filter(path => path.endsWith('.ts') && path !== '[...].ts')
  .map(path => {
    const right = /^export default route\(\s*'(\w+)'/m.exec(readFileSync(join(folder, path), 'utf8'))?.[1]
    const [, name, method] = /^(.*)\.(get|post|put|delete)\.ts$/.exec(path)!
    return {
      path: `/api/${name!.replace(/\/index$|^index$/, '')}`,
      method: method!.toUpperCase(),
      right: right as Right | undefined,
    }
  })
/** Those that ask for a right. */
export const guarded = routes.filter(each => each.right !== undefined)
/** An address that a route answers to, of something by its id. */
export const addressOf = (path: string, id = anyId) =>
  path
    .replace('[kind]', 'licence')
    .replace('[number]', '1')
    .replace('[hash]', 'a'.repeat(64))
    .replace('[remark]', anyId)
    .replace('[id]', id)

const house = houseFromPair('Theirs', { heading: 'Jost', body: 'Literata', size: 10, ratio: 1.25 })
const request = { wishes: [{ type: 'swap', from: { family: 'A' }, to: { family: 'B' } }], leftOut: [] }
/** What is sent, where something must be: bodies that are right but for whose they are about. */
const bodies: Readonly<Record<string, unknown>> = {
  'POST /api/documents/[id]/changes': { base: 1, request },
  'POST /api/documents/[id]/edit': {
    base: 1,
    edits: [{ edit: { type: 'remove', part: 'content.xml', node: 1 }, firstId: 100 }],
  },
  'POST /api/documents/[id]/finished': {
    base: 1,
    changes: [{ type: 'put-right', page: 1, line: 0, from: 0, to: 1, words: 'a' }],
  },
  'POST /api/documents/[id]/folder': { folder: null },
  'POST /api/documents/[id]/fonts': { path: 'Fonts/a.ttf' },
  'POST /api/documents/[id]/handoff': { as: 'epub' },
  'POST /api/documents/[id]/remarks': { version: 1, place: null, text: 'Theirs' },
  'POST /api/documents/[id]/remarks/[remark]': { act: 'settle' },
  'POST /api/documents/[id]/sign-off': { version: 1 },
  'POST /api/documents/[id]/step': { base: 1, direction: 'undo' },
  'PUT /api/documents/[id]/finished-starts': { level: 'document', starts: {} },
  'PUT /api/documents/[id]/house': { house: null },
  'PUT /api/documents/[id]/stand-ins': { level: 'document', family: '', script: 'any', to: null },
  'PUT /api/documents/[id]/uses': { uses: [] },
  'PUT /api/folders/[id]': { name: 'Theirs' },
  'PUT /api/folders/[id]/keep': { days: null },
  'PUT /api/folders/[id]/members': { people: [{ person: 'someone', role: 'reader' }] },
  'PUT /api/houses/[id]': { house, trialUntil: null, revision: 1 },
  'POST /api/houses/[id]/issue': { revision: 1 },
  'POST /api/houses/[id]/measure': { document: anyId },
  'POST /api/batches/[id]/apply': { leftOut: [] },
  'POST /api/batches/[id]/steer': { to: 'cancel' },
  'PUT /api/people/[id]': { role: 'reader', also: [] },
}

/** A body that a route takes, where it takes one. */
export const bodyFor = (method: string, path: string): unknown =>
  bodies[`${method} ${path}`] ?? (method === 'POST' || method === 'PUT' ? {} : undefined)
