import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import { criteriaSchema } from '../../../core/census/criteria'
import { deskStartsSchema } from '../../../core/change/defaults/desk-starts'
import { finishedStartsSchema } from '../../../core/change/defaults/finished-starts'
import { registry } from '../../../core/change/registry'
import { editsSchema } from '../../../core/document/edits'
import { operationsSchema } from '../../../core/document/operations'
import { rulesSchema } from '../../../core/document/rules'
import { heldLicenceSchema } from '../../../core/font/held-licence'
import { houseSchema } from '../../../core/house/house'
import { checklistSchema } from '../../../core/proof/checklist'

type Node = Readonly<Record<string, unknown>>
const bounds = [
  ['minLength', 'at least', 'letters'],
  ['maxLength', 'at most', 'letters'],
  ['minItems', 'at least', 'of them'],
  ['maxItems', 'at most', 'of them'],
  ['minimum', 'from', ''],
  ['exclusiveMinimum', 'above', ''],
  ['maximum', 'to', ''],
  ['exclusiveMaximum', 'below', ''],
] as const
/** Whole numbers have the greatest that a computer counts exactly as their bound, which says nothing of ours. */
const isOwn = (value: unknown) => value !== undefined && Math.abs(Number(value)) !== Number.MAX_SAFE_INTEGER

/** What a schema takes at each place of it, in words: one line for each place that is bounded. */
function limitsOf(schema: z.ZodType): string {
  const root = z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any', reused: 'inline' }) as Node
  const found = new Set<string>()
  const visit = (node: Node, path: string): void => {
    const said = bounds.flatMap(([key, word, unit]) =>
      isOwn(node[key]) ? [`${word} ${String(node[key])} ${unit}`.trim()] : [],
    )
    if (Array.isArray(node.enum)) said.push(`one of ${(node.enum as string[]).join(', ')}`)
    if (node.type === 'integer') said.unshift('whole')
    if (node.default !== undefined) said.push(`else ${JSON.stringify(node.default)}`)
    if (said.length > 0) found.add(`${path}: ${said.join(', ')}`)
    for (const [name, each] of Object.entries((node.properties ?? {}) as Record<string, Node>))
      visit(each, path === '' ? name : `${path}.${name}`)
    for (const key of ['anyOf', 'oneOf', 'allOf', 'prefixItems'])
      for (const each of (node[key] ?? []) as Node[]) {
        const type = ((each.properties as Record<string, Node> | undefined)?.type as Node | undefined)?.const
        visit(each, typeof type === 'string' ? `${path}(${type})` : path)
      }
    if (node.items) visit(node.items as Node, `${path}[]`)
    if (node.additionalProperties && typeof node.additionalProperties === 'object')
      visit(node.additionalProperties as Node, `${path}{}`)
  }
  visit(root, '')
  return `${[...found].join('\n')}\n`
}

describe('what the door takes', () => {
  it('is bounded at every place of a wish as the list says', async () => {
    await expect(limitsOf(registry.wishSchema)).toMatchFileSnapshot('./limits-of-wishes.txt')
  })

  it('is bounded at every place of an edit as the list says', async () => {
    await expect(limitsOf(editsSchema)).toMatchFileSnapshot('./limits-of-edits.txt')
  })

  it.each([
    ['rules that a document keeps', rulesSchema, './limits-of-rules.txt'],
    ['a house', houseSchema, './limits-of-houses.txt'],
    ['a licence', heldLicenceSchema, './limits-of-licences.txt'],
    ['a checklist', checklistSchema, './limits-of-checklists.txt'],
    ['operations', operationsSchema, './limits-of-operations.txt'],
    ['a search', criteriaSchema, './limits-of-searches.txt'],
    ['what text added to a finished file begins with', finishedStartsSchema, './limits-of-finished-starts.txt'],
    ['what new documents begin with', deskStartsSchema, './limits-of-desk-starts.txt'],
  ])('is bounded at every place of %s as the list says', async (_, schema, list) => {
    await expect(limitsOf(schema)).toMatchFileSnapshot(list)
  })

  it('leaves no text and no list of a wish without a greatest length', () => {
    const open: string[] = []
    const visit = (node: Node, path: string): void => {
      if (node.type === 'string' && node.maxLength === undefined && !node.enum && !node.const && !node.pattern)
        open.push(path)
      if (node.type === 'array' && node.maxItems === undefined && !node.prefixItems) open.push(path)
      for (const [key, each] of Object.entries(node))
        if (each && typeof each === 'object') visit(each as Node, `${path}/${key}`)
    }
    visit(z.toJSONSchema(registry.schema, { io: 'input', unrepresentable: 'any', reused: 'inline' }) as Node, '')
    expect(open).toEqual([])
  })
})
