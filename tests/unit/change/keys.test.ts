import { describe, expect, it } from 'vitest'
import { keyText, rowKeySchema, type RowKey } from '../../../core/change/plan'
import { face, paragraphStyle, sessionOf, textStyle } from '../../support/fixtures'
import { planned, quickly, request, swap } from '../../support/planning'

describe('keys of rows', () => {
  it('are one where all members agree, in whatever order', () => {
    expect(keyText({ what: 'a', part: 'p', node: 1 })).toBe(keyText({ node: 1, what: 'a', part: 'p' }))
    const many = Object.entries({ what: 'a', part: 'p', node: 1, name: 'n', family: 'f', of: 'o', style: 's' })
    const one = keyText(Object.fromEntries(many) as RowKey)
    for (const [at] of many.entries()) {
      const turned = [...many.slice(at), ...many.slice(0, at)]
      expect(keyText(Object.fromEntries(turned) as RowKey)).toBe(one)
      expect(keyText(Object.fromEntries(turned.reverse()) as RowKey)).toBe(one)
    }
    expect(keyText({ what: 'a', node: 1 })).not.toBe(keyText({ what: 'a', node: '1' }))
    expect(keyText({ what: 'a', family: 'x|y' })).not.toBe(keyText({ what: 'a', family: 'x', style: 'y' }))
  })

  it.each([
    ['without a sort', { part: 'content.xml' }],
    ['with a list', { what: 'a', part: ['content.xml'] }],
    [
      'with too many members',
      Object.fromEntries([['what', 'a'], ...Array.from({ length: 12 }, (_, at) => [`m${at}`, at])]),
    ],
    ['with a member too long', { what: 'a', owner: 'x'.repeat(2_001) }],
  ])('are refused %s', (_name, key) => {
    expect(rowKeySchema.safeParse(key).success).toBe(false)
  })

  it('of every row that a plan lists are read again at the door', () => {
    const name = 'A style whose name goes on '.repeat(11).slice(0, 280)
    const of = sessionOf({
      stylesFaces: face('Jost'),
      styles: paragraphStyle(name, 'style:font-name="Jost"'),
      body: `<text:p text:style-name="${name}">sea</text:p>`,
    })
    const wishes = [swap('Jost', 'Inter')]
    const { plan } = planned(of, wishes)
    const keys = plan.rows.map(row => row.key)
    expect(keys.some(key => String(key.owner).length >= 280)).toBe(true)
    expect(request(wishes, keys).leftOut).toEqual(keys)
    expect(planned(of, wishes, keys).plan.operations).toEqual([])
  })
})

describe('a family with a bar in its name', () => {
  const of = sessionOf({
    stylesFaces: face('Bar', "'Sea | Port'"),
    styles:
      paragraphStyle('Body', 'style:font-name="Bar" fo:font-size="10pt"') + textStyle('Loud', 'fo:font-weight="bold"'),
    body: '<text:p text:style-name="Body">harbour <text:span text:style-name="Loud">light</text:span></text:p>',
  })

  it('keeps its groups and sizes in a swap', () => {
    const { plan, after } = planned(of, [swap('Sea | Port', 'Inter', { size: { mode: 'x-height' } })])
    expect(plan.groups.map(group => group.style)).toEqual(['Body'])
    expect(plan.sizes).toHaveLength(1)
    expect(plan.rows.some(row => row.stage === 'size' && row.included)).toBe(true)
    expect(plan.mappings.map(mapping => mapping.from)).toMatchObject([
      { family: 'Sea | Port', style: 'Regular', slot: 'western' },
      { family: 'Sea | Port', style: 'Bold', slot: 'western' },
    ])
    const sizes = new Set(after.detail.census.voices.map(voice => voice.size))
    expect(sizes.has(10)).toBe(false)
  })

  it('can keep a group, and have a face chosen by hand', () => {
    const { plan } = planned(of, [swap('Sea | Port', 'Inter')])
    const kept = planned(of, [swap('Sea | Port', 'Inter')], [plan.groups[0]!.key])
    expect(kept.after.detail.census.faces.map(each => each.family)).toEqual(['Sea | Port', 'Sea | Port'])
    const chosen = quickly(
      of,
      swap('Sea | Port', 'Inter', { faces: [{ style: 'Bold', slot: 'western', to: 'Black' }] }),
    )
    expect(chosen.plan.mappings.find(mapping => mapping.from.style === 'Bold')).toMatchObject({
      note: 'chosen',
      to: { style: 'Black' },
    })
  })
})

describe('wishes of one request', () => {
  const of = () =>
    sessionOf({
      stylesFaces: face('Jost') + face('Spectral'),
      styles: paragraphStyle('Body', 'style:font-name="Jost" fo:font-size="10pt"'),
      body: '<text:p text:style-name="Body">one two three</text:p>',
    })
  const recast = (text: string, words: string) => ({ type: 'recast', find: { words: { text } }, change: { words } })
  const text = (after: ReturnType<typeof of>) => after.document.parts.get('content.xml')!
  const shown = (after: ReturnType<typeof of>) => {
    const part = text(after)
    return part.textOf([...part.descendants()].find(each => each.name === 'text:p')!.id)
  }

  it('act at once where they are neighbours that find text: none finds what another wrote', () => {
    const { plan, after } = quickly(of(), recast('one', 'two'), recast('two', 'three'), recast('three', 'one'))
    expect(shown(after)).toBe('two three one')
    expect(plan.places).toBe(3)
  })

  it('do not write over each other: the second is told why', () => {
    const { plan, after } = quickly(of(), recast('one two', 'four'), recast('two three', 'five'))
    expect(shown(after)).toBe('four three')
    expect(plan.rows.map(row => row.reason)).toEqual([null, 'another wish writes these words'])
  })

  it('swap and recast together, the look and the words of the same text', () => {
    const { plan, after } = quickly(of(), recast('two', 'seventeen'), swap('Jost', 'Spectral'), {
      type: 'recast',
      find: { look: { family: 'Jost' } },
      change: { size: { points: 12 } },
    })
    expect(shown(after)).toBe('one seventeen three')
    expect(after.detail.census.voices.map(voice => [voice.family, voice.size])).toEqual([['Spectral', 12]])
    expect(plan.title).toContain('Jost gives way to Spectral')
  })

  it('go in order where a wish about styles stands between', () => {
    const edit = {
      type: 'edit',
      family: 'paragraph',
      name: 'Body',
      changes: { fonts: { western: { family: 'Spectral' } } },
    }
    const { after } = quickly(of(), edit, swap('Spectral', 'Inter'))
    expect(after.detail.census.faces.map(each => each.family)).toEqual(['Inter'])
    expect(() => quickly(of(), edit, edit, swap('Jost', 'Inter'))).not.toThrow()
  })
})
