import { describe, expect, it } from 'vitest'
import { readSource } from '../../../demo/markup'
import { escapeXml } from '../../../core/package/new-package'
import { sailingGuide } from '../../../demo/sailing-guide'
import { parts } from '../../support/independent'

describe('the demo’s markup', () => {
  it('reads each kind of block', () => {
    const blocks = readSource(
      '# One\n## Two\n> lead\nbody *ship* on\n- item\n!notice look\n| a | b\n| c | d\n!page\n!empty\n!timetable\n!chart\n',
    )
    expect(blocks.map(block => block.kind)).toEqual([
      'heading',
      'heading',
      'lead',
      'body',
      'item',
      'notice',
      'table',
      'page',
      'empty',
      'timetable',
      'chart',
    ])
    expect(blocks[3]).toEqual({
      kind: 'body',
      inlines: [
        { kind: 'text', text: 'body ' },
        { kind: 'name', text: 'ship' },
        { kind: 'text', text: ' on' },
      ],
    })
    expect(blocks[6]).toEqual({
      kind: 'table',
      rows: [
        ['a', 'b'],
        ['c', 'd'],
      ],
    })
  })

  it('reads faults and notes inside a line', () => {
    expect(readSource('a[tight]b[/]c[note]d[/]')[0]).toEqual({
      kind: 'body',
      inlines: [
        { kind: 'text', text: 'a' },
        { kind: 'fault', fault: 'tight', text: 'b' },
        { kind: 'text', text: 'c' },
        { kind: 'note', text: 'd' },
      ],
    })
  })

  it('escapes what XML would read as markup', () => {
    expect(escapeXml('<a> & "b"')).toBe('&lt;a&gt; &amp; &quot;b&quot;')
  })
})

describe('the Sailing guide', () => {
  const files = parts(sailingGuide())
  const content = new TextDecoder().decode(files['content.xml'])

  it('is the same file every time it is made', () => {
    expect(Buffer.compare(sailingGuide(), sailingGuide())).toBe(0)
  })

  it('has the parts of a package, the mimetype first', () => {
    expect(Object.keys(files)[0]).toBe('mimetype')
    expect(Object.keys(files)).toEqual(
      expect.arrayContaining([
        'content.xml',
        'styles.xml',
        'meta.xml',
        'Object 1/content.xml',
        'META-INF/manifest.xml',
      ]),
    )
  })

  it('has its faults planted: strays, twins, double returns, two languages, a comment, a lone space', () => {
    expect(content.match(/<text:p text:style-name="Body"\/>\n<text:p text:style-name="Body"\/>/)).not.toBeNull()
    expect(content.match(/text:style-name="T5"><text:s\/>/g)).toHaveLength(1)
    expect(content.match(/text:style-name="P2"/g)!.length).toBeGreaterThan(2)
    expect(content).toContain('ようこそ')
    expect(content).toContain('<office:annotation>')
    expect(content.match(/<text:note /g)).toHaveLength(2)
    expect(content.match(/<table:table /g)!.length).toBeGreaterThan(2)
  })

  it('has a timetable whose times follow from one another', () => {
    const times = [...content.matchAll(/>(\d+)\.(\d\d)</g)].map(match => Number(match[1]) * 60 + Number(match[2]))
    expect(times.length).toBe(24)
    for (let at = 3; at < times.length; at++) expect(times[at]!).toBeGreaterThan(times[at - 3]!)
  })
})
