import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { PackageError } from '../../../core/package/errors'
import {
  insertNode,
  removeNode,
  restoreTag,
  setAttributes,
  setText,
  startTag,
  subtreeIds,
} from '../../../core/xml/edit'
import { parseXml } from '../../../core/xml/parse'
import type { XmlElement, XmlPart } from '../../../core/xml/tree'
import { idRuns, writeXml } from '../../../core/xml/write'

const style = 'urn:oasis:names:tc:opendocument:xmlns:style:1.0'
const fo = 'urn:oasis:names:tc:opendocument:xmlns:xsl-fo-compatible:1.0'
const odd =
  `<?xml version='1.0'?>\r\n<!-- kept -->\n<s:root xmlns:s="${style}" xmlns:fo="${fo}" ` +
  ` s:name='a&#x26;b' fo:color = "#000000">\n  <s:one/>text &amp; &lt;more&gt; <![CDATA[<raw>` +
  `]]><?pi data?><!-- in --><s:two   s:name="q" ></s:two >\n</s:root>\n<!-- after -->`
const named = (part: XmlPart, name: string): XmlElement =>
  [...part.descendants()].find(element => element.name === name)!
const fault = (source: string, options = {}): string => {
  try {
    parseXml('x.xml', source, options)
  } catch (error) {
    if (error instanceof PackageError) return error.fault
    throw error
  }
  return 'none'
}

describe('reading', () => {
  it('tells names by namespace, whatever the prefix', () => {
    const part = parseXml('x', odd)
    expect(part.rootElement.name).toBe('style:root')
    expect(part.rootElement.attributes).toEqual({ 'style:name': 'a&b', 'fo:color': '#000000' })
    expect(part.textOf(part.root)).toBe('\n  text & <more> <raw>\n')
  })

  it('keeps a foreign namespace by its address', () => {
    expect(parseXml('x', '<a xmlns="urn:elsewhere" b="1"/>').rootElement.name).toBe('{urn:elsewhere}a')
  })

  it('passes an external document type over and fetches nothing', () => {
    const part = parseXml(
      'x',
      '<!DOCTYPE math PUBLIC "-//X//EN" "math.dtd"><math xmlns="http://www.w3.org/1998/Math/MathML"><mi>x</mi></math>',
    )
    expect(part.rootElement.name).toBe('math:math')
  })

  it.each([
    ['an internal subset', 'dtd', '<!DOCTYPE a [<!ENTITY b "c">]><a>&b;</a>'],
    ['an entity beyond XML’s own', 'entity', '<a>&nbsp;</a>'],
    ['an element that is not closed', 'bad-xml', '<a><b></a>'],
    ['an unbound prefix', 'bad-xml', '<q:a/>'],
  ])('refuses %s', (_name, expected, source) => {
    expect(fault(source)).toBe(expected)
  })

  it('refuses depth and size beyond the limits', () => {
    expect(fault('<a>'.repeat(100_000))).toBe('too-deep')
    expect(fault(`<a>${'<b/>'.repeat(50)}</a>`, { nodes: 20 })).toBe('too-many-nodes')
  })
})

describe('writing', () => {
  it('gives untouched parts back, and touched ones but for the touch', () => {
    const part = parseXml('x', odd)
    expect(writeXml(part)).toBe(odd)
    const changed = setAttributes(part, named(part, 'style:two').id, { 'style:name': 'z"<' })
    expect(writeXml(changed)).toBe(odd.replace('s:name="q"', 's:name="z&quot;&lt;"'))
  })

  it('keeps quotes, spaces and order when attributes are set, added and taken away', () => {
    const part = parseXml('x', odd)
    const changed = setAttributes(part, part.root, {
      'fo:color': '#111111',
      'style:name': null,
      'style:family': 'text',
    })
    expect(startTag(changed.rootElement)).toBe(
      `<s:root xmlns:s="${style}" xmlns:fo="${fo}" fo:color = "#111111" s:family="text">`,
    )
  })

  it('binds a prefix that is not bound yet', () => {
    const part = parseXml('x', '<a><b/></a>')
    const b = named(part, 'b')
    expect(writeXml(setAttributes(part, b.id, { 'fo:color': 'red' }))).toBe(
      `<a><b xmlns:fo="${fo}" fo:color="red"/></a>`,
    )
  })

  it('opens an empty element for what is put into it, and closes it again', () => {
    const part = parseXml('x', odd)
    const one = named(part, 'style:one')
    const inserted = insertNode(part, one.id, 0, '<s:new s:name="n"><s:in/></s:new>', [100, 101])
    expect(writeXml(inserted)).toBe(odd.replace('<s:one/>', '<s:one><s:new s:name="n"><s:in/></s:new></s:one>'))
    expect(writeXml(removeNode(inserted, 100))).toBe(odd)
  })

  it('restores tags and text to their bytes', () => {
    const part = parseXml('x', odd)
    const two = named(part, 'style:two')
    const restored = restoreTag(setAttributes(part, two.id, { 'style:name': 'other' }), two.id, startTag(two))
    expect(writeXml(restored)).toBe(odd)
    expect(restored.element(two.id).attributes).toEqual(two.attributes)
    expect(() => restoreTag(part, two.id, '<s:three/>')).toThrow(/another element/)
    const node = part.rootElement.children
      .map(id => part.node(id))
      .find(each => each.kind === 'text' && each.text.includes('more'))!
    const edited = setText(part, node.id, 'a < b')
    expect(writeXml(edited)).toContain('a &lt; b')
    expect(
      writeXml(
        setText(edited, node.id, node.kind === 'text' ? node.text : '', node.source.slice(node.start, node.end)),
      ),
    ).toBe(odd)
  })

  it('refuses ids in use, wrong counts and the root', () => {
    const part = parseXml('x', odd)
    expect(() => insertNode(part, part.root, 0, '<s:n/>', [0])).toThrow(/in use/)
    expect(() => insertNode(part, part.root, 0, '<s:n/>', [90, 91])).toThrow(/nodes/)
    expect(() => insertNode(part, part.root, 99, '<s:n/>', [90])).toThrow(/no place/)
    expect(() => removeNode(part, part.root)).toThrow(/root/)
  })
})

describe('ids outlive saving: a property', () => {
  type Step = { readonly kind: 'set' | 'insert' | 'remove'; readonly at: number; readonly value: string }
  const steps = fc.array(
    fc.record({
      kind: fc.constantFrom<Step['kind']>('set', 'insert', 'remove'),
      at: fc.nat(200),
      value: fc.string({ maxLength: 8 }).filter(value => !/[^\x20-\x7E]/.test(value)),
    }),
    { maxLength: 12 },
  )

  const shape = (part: XmlPart, id: number): unknown => {
    const node = part.node(id)
    return node.kind === 'element'
      ? [id, node.name, node.attributes, node.children.map(child => shape(part, child))]
      : [id, node.kind, node.kind === 'text' ? node.text : '']
  }

  it('parsing what was written, with the kept ids, is the same tree', () => {
    fc.assert(
      fc.property(steps, list => {
        let part = parseXml('x', odd)
        for (const { kind, at, value } of list) {
          const elements = [...part.descendants()]
          const element = elements[at % elements.length]!
          if (kind === 'set') part = setAttributes(part, element.id, { 'style:name': value })
          else if (kind === 'insert')
            part = insertNode(part, element.id, at % (element.children.length + 1), '<s:n><s:m/></s:n>', [
              part.nextId,
              part.nextId + 1,
            ])
          else if (element.id !== part.root) part = removeNode(part, element.id)
        }
        const again = parseXml('x', writeXml(part), { ids: idRuns(part) })
        // A text node between two removed elements joins its neighbour when parsed again: those trees are compared by elements.
        const elements = (each: XmlPart) => [...each.descendants()].map(element => [element.name, element.attributes])
        expect(elements(again)).toEqual(elements(part))
        const removed = list.some(step => step.kind === 'remove')
        if (!removed) expect(shape(again, again.root)).toEqual(shape(part, part.root))
      }),
      { numRuns: 150 },
    )
  })

  it('subtree ids come in document order', () => {
    const part = parseXml('x', '<a><b>t<c/></b><d/></a>')
    expect(subtreeIds(part, part.root)).toEqual([0, 1, 2, 3, 4])
  })
})
