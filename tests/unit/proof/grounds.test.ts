import { PNG } from 'pngjs'
import { describe, expect, it } from 'vitest'
import { contrast } from '../../../core/colour/contrast'
import { groundsOf } from '../../../core/proof/grounds'
import { Subject, visibleCount } from '../../../core/proof/subject'
import { drawingOf, drawnPage, graphicStyle, paragraphStyle, shapeAt, textFrame } from '../../support/fixtures'
import { foundBy, p, putRight, textOf } from './proofing'

type Color = readonly [red: number, green: number, blue: number, opacity?: number]
/** A picture of 200 by 100 pixels whose colours are told by where they are, from 0 to 1. */
function picture(color: (x: number, y: number) => Color): Uint8Array {
  const png = new PNG({ width: 200, height: 100 })
  for (let y = 0; y < 100; y++)
    for (let x = 0; x < 200; x++) {
      const [red, green, blue, opacity = 255] = color(x / 200, y / 100)
      png.data.set([red, green, blue, opacity], (y * 200 + x) * 4)
    }
  return PNG.sync.write(png)
}
const night: Color = [20, 30, 44]
const sky: Color = [230, 236, 240]

/** White text, twenty points, at a place over what is drawn before it. */
const over = (before: string, styles = '', content = picture(() => night), place = shapeAt(1, 1, 7, 1.2)) =>
  drawingOf({
    pages: drawnPage(before + textFrame(place, '<text:p>Mind the gap</text:p>', 'draw:style-name="T"')),
    automatic:
      graphicStyle('T', 'draw:fill="none" fo:padding="0cm"', 'fo:font-size="20pt" fo:color="#ffffff"') +
      graphicStyle('plain', 'draw:fill="solid" draw:fill-color="#101820" draw:stroke="none"') +
      graphicStyle('half', 'draw:fill="solid" draw:fill-color="#000000" draw:opacity="30%" draw:stroke="none"') +
      graphicStyle('shade', 'draw:fill="gradient" draw:fill-gradient-name="G" draw:stroke="none"'),
    styles:
      '<draw:gradient draw:name="G" draw:style="linear" draw:angle="900" draw:border="0%" ' +
      `draw:start-color="#ffffff" draw:end-color="#000000"/>${styles}`,
    parts: [{ path: 'Pictures/a.png', type: 'image/png', content }],
  })
const image = (place = shapeAt(0, 0, 10, 5), more = '') =>
  `<draw:frame ${place} ${more}><draw:image xlink:href="Pictures/a.png"/></draw:frame>`
const grounds = (of: ReturnType<typeof over>) =>
  [...groundsOf(new Subject(of))].map(({ text, from, to, on, ground }) => [text.text.slice(from, to), on, ground])

describe('what text stands on', () => {
  it('is the picture below it, by its pixels', () => {
    expect(grounds(over(image()))).toEqual([['Mind the gap', 'picture', '#141e2c']])
    expect(foundBy('contrast', over(image()))).toEqual([])
    const [found] = foundBy(
      'contrast',
      over(
        image(),
        '',
        picture(() => sky),
      ),
    )
    expect(found).toMatchObject({ severity: 'warning', text: 'Mind the gap' })
    expect(found!.says).toBe('#ffffff on a picture: 1.1 : 1, 3 : 1 are asked for')
  })

  it('is the part of the picture that lies there, and nothing of it beside the picture', () => {
    const lower = picture((_, y) => (y < 0.5 ? sky : night))
    const [[, , above]] = grounds(over(image(), '', lower)) as [[string, string, string]]
    const [[, , below]] = grounds(over(image(), '', lower, shapeAt(1, 3.4, 7, 1.2))) as [[string, string, string]]
    expect([above, below]).toEqual(['#e6ecf0', '#141e2c'])
    expect(grounds(over(image(shapeAt(0, 6, 10, 4))))).toEqual([['Mind the gap', 'plain', '#ffffff']])
  })

  it('is not told by a speck, but by a tenth of it', () => {
    const specks = (share: number) => picture((x, y) => ((x * 97 + y * 59) % 1 < share ? sky : night))
    expect(foundBy('contrast', over(image(), '', specks(0.04)))).toEqual([])
    expect(foundBy('contrast', over(image(), '', specks(0.3)))).toHaveLength(1)
  })

  it('shines through what does not cover', () => {
    const veil = `<draw:rect draw:style-name="half" ${shapeAt(0, 0, 10, 5)}/>`
    const [[, on, ground]] = grounds(
      over(
        image() + veil,
        '',
        picture(() => sky),
      ),
    ) as [[string, string, string]]
    expect(on).toBe('picture')
    // Three tenths of black over it.
    expect(ground).toBe('#a1a5a8')
    const glass = picture(() => [0, 0, 0, 51])
    expect(grounds(over(image(), '', glass))).toEqual([['Mind the gap', 'picture', '#cccccc']])
    const covered = `<draw:rect draw:style-name="plain" ${shapeAt(0, 0, 10, 5)}/>`
    expect(grounds(over(image() + covered))).toEqual([['Mind the gap', 'plain', '#101820']])
  })

  it('is a gradient where it is nearest to the text', () => {
    const shade = `<draw:rect draw:style-name="shade" ${shapeAt(0, 0, 10, 5)}/>`
    const at = (x: number) => {
      const [found] = [...groundsOf(new Subject(over(shade, '', undefined, shapeAt(x, 1, 4.5, 1.2))))]
      expect(found!.on).toBe('gradient')
      return contrast('#ffffff', found!.ground!)
    }
    const [left, right] = [at(0), at(5.4)]
    expect(Math.min(left, right)).toBeLessThan(2)
    expect(Math.max(left, right)).toBeGreaterThan(4)
  })

  it('is turned with the picture', () => {
    // Turned by a quarter about its corner, what was its left end lies at the bottom.
    const halves = picture(x => (x < 0.5 ? sky : night))
    const turned = image('svg:width="8cm" svg:height="4cm"', 'draw:transform="rotate(1.5707963) translate(3cm 9cm)"')
    const at = (y: number) => grounds(over(turned, '', halves, shapeAt(3.2, y, 3.4, 1.2)))[0]![2]
    expect([at(2), at(7)].sort()).toEqual(['#141e2c', '#e6ecf0'])
  })

  it('is not known of a picture that cannot be read: that is told once a page, to be looked at', () => {
    const broken = over(image(), '', new Uint8Array([1, 2, 3]))
    expect(grounds(broken)).toEqual([['Mind the gap', 'picture', null]])
    expect(foundBy('contrast', broken).map(each => [each.severity, each.says])).toEqual([
      ['note', 'Text of this page stands on a picture that cannot be looked into'],
    ])
  })

  it('is told of words of a style that stands on other grounds, too: they take a character style, and are no strays', () => {
    const named = (name: string, more: string) =>
      paragraphStyle(name, 'fo:color="#595959"', more, ' style:parent-style-name="Standard"')
    const before = textOf(p('on paper', 'Plain') + p('on slate', 'Slate'), {
      styles: named('Plain', ''),
      automatic: paragraphStyle('Slate', '', 'fo:background-color="#1b2430"', ' style:parent-style-name="Plain"'),
    })
    const [found, ...others] = foundBy('contrast', before)
    expect([found!.text, others]).toEqual(['on slate', []])
    const after = putRight(before, [found!])
    expect(foundBy('contrast', after)).toEqual([])
    expect(foundBy('stray', after)).toEqual([])
    const made = [...after.reading.cascade.scope('content.xml').common.values()].filter(each => each.family === 'text')
    expect(made.map(each => each.displayName)).toEqual([`Lighter, ${made[0]!.text['fo:color']}`])
  })

  it('is reached on its darkest and its lightest where a colour does that, and said at that place alone', () => {
    const before = over(
      image(),
      '',
      picture(x => (x < 0.5 ? sky : [180, 190, 196])),
    )
    const after = putRight(before, foundBy('contrast', before))
    expect(foundBy('contrast', after)).toEqual([])
    const [found] = [...groundsOf(new Subject(after))]
    expect(contrast(found!.color, '#b4bec4')).toBeGreaterThanOrEqual(3)
    const both = over(
      image(),
      '',
      picture(x => (x < 0.5 ? [255, 255, 255] : [0, 0, 0])),
    )
    expect(foundBy('contrast', both).map(each => each.repair)).toEqual([null])
  })
})

describe('what is seen of words', () => {
  it('is counted by characters, spaces and what stands for objects left out', () => {
    expect(visibleCount('two boats\u00a0\t\uFFFC a day')).toBe(12)
    expect(visibleCount('𝔸 😀!')).toBe(3)
    expect(visibleCount(' \uFFFC\n')).toBe(0)
  })
})
