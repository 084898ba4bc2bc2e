import { describe, expect, it } from 'vitest'
import { displayPage, type DisplayPage } from '../../../core/typeset/display'
import { tilePlaces } from '../../../core/typeset/fills'
import { mapped } from '../../../core/typeset/matrix'
import { angleOf } from '../../../core/typeset/shades'
import { pageSvg } from '../../../core/typeset/svg'
import {
  drawingOf,
  drawnPage,
  graphicStyle,
  makeDrawing,
  session,
  shapeAt,
  textFrame,
  typesetter,
  type DrawingFixture,
} from '../../support/fixtures'

const centimetre = 72 / 2.54
const rectangle = (style: string, at = shapeAt(1, 1, 4, 2)) => `<draw:rect draw:style-name="${style}" ${at}/>`
const drawn = (fixture: DrawingFixture): DisplayPage => displayPage(drawingOf(fixture).composition.pages[0]!)
type Path = Extract<DisplayPage['shapes'][number], { kind: 'path' }>
const paths = (page: DisplayPage): Path[] => page.shapes.filter(shape => shape.kind === 'path')

/** A rectangle of 4 by 2 cm, filled by a gradient. */
const shaded = (attributes: string, element = 'draw:gradient', inside = '') =>
  drawn({
    pages: drawnPage(rectangle('a')),
    automatic: graphicStyle('a', 'draw:fill="gradient" draw:fill-gradient-name="G"'),
    styles: `<${element} draw:name="G" ${attributes}>${inside}</${element}>`,
  })
const colours = 'draw:start-color="#000000" draw:end-color="#ffffff"'
/** Where a point of the gradient's own unit axis or circle comes to lie, in centimetres. */
const at = (path: Path, x: number, y: number) => {
  const { x: across, y: down } = mapped(path.shade!.matrix, x, y)
  return [across / centimetre, down / centimetre].map(value => Math.round(value * 100) / 100)
}

describe('angles', () => {
  it('are tenths of a degree where no unit is said, as files have them', () => {
    expect([angleOf('900'), angleOf('90deg'), angleOf('100grad'), angleOf(String(Math.PI / 2) + 'rad')]).toEqual(
      Array.from({ length: 4 }, () => expect.closeTo(Math.PI / 2, 9)),
    )
    expect([angleOf(undefined), angleOf('a turn')]).toEqual([0, 0])
  })
})

describe('gradients', () => {
  it('of lines run down, and turn anticlockwise with their angle, over all of the box', () => {
    const [down] = paths(shaded(`draw:style="linear" ${colours}`))
    expect([at(down!, 0, 0), at(down!, 1, 0)]).toEqual([
      [2, 0],
      [2, 2],
    ])
    expect(down!.fill).toBe('#808080')
    const [right] = paths(shaded(`draw:style="linear" draw:angle="900" draw:border="25%" ${colours}`))
    expect([at(right!, 0, 0), at(right!, 1, 0)]).toEqual([
      [0, 1],
      [4, 1],
    ])
    expect(right!.shade!.stops).toEqual([
      { at: 0, color: '#000000' },
      { at: 0.25, color: '#000000' },
      { at: 1, color: '#ffffff' },
    ])
    const [slanted] = paths(shaded(`draw:style="linear" draw:angle="45deg" ${colours}`))
    const [[x1, y1], [x2, y2]] = [at(slanted!, 0, 0), at(slanted!, 1, 0)]
    expect(Math.hypot(x2! - x1!, y2! - y1!)).toBeCloseTo(6 * Math.SQRT1_2, 1)
  })

  it('with an axis come back to where they began, and intensities darken their colours', () => {
    const [axial] = paths(shaded(`draw:style="axial" draw:end-intensity="50%" ${colours}`))
    expect(axial!.shade!.stops.map(stop => [stop.at, stop.color])).toEqual([
      [0, '#000000'],
      [0, '#000000'],
      [0.5, '#808080'],
      [1, '#000000'],
      [1, '#000000'],
    ])
  })

  it('go round from their centre: as a circle around the box, or as an ellipse', () => {
    const [radial] = paths(shaded(`draw:style="radial" draw:cx="25%" draw:cy="50%" ${colours}`))
    expect([radial!.shade!.kind, at(radial!, 0, 0)]).toEqual(['radial', [1, 1]])
    expect(at(radial!, 1, 0)[0]! - 1).toBeCloseTo(Math.hypot(4, 2) / 2, 1)
    expect(radial!.shade!.stops[0]!.color).toBe('#ffffff')
    const [ellipse] = paths(shaded(`draw:style="ellipsoid" ${colours}`))
    expect([at(ellipse!, 1, 0)[0], at(ellipse!, 0, 1)[1]]).toEqual([4.83, 2.41])
  })

  it('of squares are nested outlines that stay inside the shape, the inmost in the last colour', () => {
    const found = paths(shaded(`draw:style="square" ${colours}`))
    expect(found).toHaveLength(65)
    expect(found.slice(1).every(path => path.clip === found[0]!.data)).toBe(true)
    expect(found.at(-1)!.fill).toBe('#ffffff')
    const two = paths(shaded('draw:style="rectangular" draw:start-color="#000000" draw:end-color="#020000"'))
    expect(two.map(path => path.fill)).toEqual(['#000000', '#010000', '#020000'])
  })

  it('of SVG are read with all their stops', () => {
    const stops = ['0', '0.25', '100%']
      .map((offset, index) => `<svg:stop svg:offset="${offset}" svg:stop-color="#00000${index}"/>`)
      .join('')
    const [path] = paths(shaded('svg:x1="0%" svg:x2="50%"', 'svg:linearGradient', stops))
    expect(path!.shade!.stops.map(stop => stop.at)).toEqual([0, 0.25, 1])
    expect(at(path!, 1, 0)).toEqual([2, 0])
  })

  it('are drawn as such in pictures of pages', () => {
    const svg = pageSvg(shaded(`draw:style="radial" ${colours}`), typesetter.shaper)
    expect(svg).toContain('<radialGradient id="d0" gradientUnits="userSpaceOnUse"')
    expect(svg).toContain('fill="url(#d0)"')
    const nested = pageSvg(shaded(`draw:style="square" ${colours}`), typesetter.shaper)
    expect(nested.match(/clip-path="url\(#d\d+\)"/g)).toHaveLength(64)
  })

  it('fill a page, too, and are named where the file does not say what they are', () => {
    const ground =
      '<style:style style:name="dp" style:family="drawing-page"><style:drawing-page-properties draw:fill="gradient" ' +
      'draw:fill-gradient-name="G"/></style:style>'
    const fixture = {
      pages: drawnPage('', ' draw:style-name="dp"'),
      automatic: ground,
      styles: `<draw:gradient draw:name="G" draw:style="linear" ${colours}/>`,
    }
    const [path] = paths(drawn(fixture))
    expect([path!.width, path!.shade!.kind]).toEqual([expect.closeTo(10 * centimetre, 3), 'linear'])
    const without = drawingOf({ ...fixture, styles: '' }).composition
    expect(without.unlaid).toEqual([{ feature: 'gradients that the file does not define (not filled)', count: 1 }])
  })
})

describe('hatches', () => {
  it('are lines at their distance, kept inside the outline, over the ground they ask for', () => {
    const hatched = (more: string, style: string) =>
      paths(
        drawn({
          pages: drawnPage(rectangle('a')),
          automatic: graphicStyle('a', `draw:fill="hatch" draw:fill-hatch-name="H" ${more}`),
          styles: `<draw:hatch draw:name="H" draw:style="${style}" draw:color="#123456" draw:distance="0.5cm"/>`,
        }),
      )
    const [lines, ...none] = hatched('', 'single')
    expect(none).toEqual([])
    expect([lines!.stroke, lines!.fill, lines!.clip?.startsWith('M0 0')]).toEqual(['#123456', '', true])
    const levels = [...lines!.data.matchAll(/M-?[\d.]+ (-?[\d.]+)/g)].map(match => Number(match[1]))
    expect(levels[1]! - levels[0]!).toBeCloseTo(0.5 * centimetre, 2)
    const [ground, crossed] = hatched('draw:fill-hatch-solid="true" draw:fill-color="#eeeeee"', 'triple')
    expect(ground!.fill).toBe('#eeeeee')
    expect(crossed!.data.split('M').length - 1).toBe(levels.length * 3)
  })
})

/** The first bytes of a PNG, as far as its size. */
const png = (width: number, height: number) => {
  const bytes = new Uint8Array(33)
  bytes.set([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0, 0, 0, 13, 0x49, 0x48, 0x44, 0x52])
  new DataView(bytes.buffer).setUint32(16, width)
  new DataView(bytes.buffer).setUint32(20, height)
  return bytes
}
const withPicture = (properties: string, bytes = png(40, 20)) => {
  const composition = drawingOf({
    pages: drawnPage(rectangle('a', shapeAt(0, 0, 4, 2))),
    automatic: graphicStyle('a', `draw:fill="bitmap" draw:fill-image-name="I" ${properties}`),
    styles: '<draw:fill-image draw:name="I" xlink:href="Pictures/one.png"/>',
    parts: [{ path: 'Pictures/one.png', type: 'image/png', content: bytes }],
  }).composition
  const image = displayPage(composition.pages[0]!).shapes.find(shape => shape.kind === 'image')!
  return { image, places: tilePlaces(image), unlaid: composition.unlaid.map(each => each.feature) }
}

describe('pictures that tile', () => {
  it('stand in their own size, from the middle, as often as they cover the shape', () => {
    const { image, places, unlaid } = withPicture('style:repeat="repeat"')
    expect(unlaid).toEqual([])
    expect(image.clip?.startsWith('M0 0')).toBe(true)
    expect([image.tile!.width, image.tile!.height]).toEqual([30, 15])
    const covered = places.reduce(
      (sum, { x, y, width, height }) =>
        sum +
        (Math.min(x + width, image.width) - Math.max(x, 0)) * (Math.min(y + height, image.height) - Math.max(y, 0)),
      0,
    )
    expect(covered).toBeCloseTo(image.width * image.height, 3)
    expect(places.some(({ x }) => Math.abs(x - (image.width - 30) / 2) < 0.01)).toBe(true)
  })

  it('take a size and a corner that are said, and shift every second row', () => {
    const { image, places } = withPicture(
      'style:repeat="repeat" draw:fill-image-width="1cm" draw:fill-image-height="50%" ' +
        'draw:fill-image-ref-point="top-left" draw:tile-repeat-offset="50% horizontal"',
    )
    const levels = [...new Set(places.map(each => Math.round(each.y)))].sort((a, b) => a - b)
    expect(levels).toEqual([0, 28])
    const [one, two] = levels.map(level =>
      Math.min(...places.filter(each => Math.round(each.y) === level).map(({ x }) => Math.abs(x))),
    )
    expect([one, two].sort((a, b) => a! - b!)).toEqual([expect.closeTo(0, 3), expect.closeTo(centimetre / 2, 3)])
    expect(image.tile!.width).toBeCloseTo(centimetre, 3)
  })

  it('stand once where they do not repeat, and fill the shape where they stretch', () => {
    expect(withPicture('style:repeat="no-repeat" draw:fill-image-ref-point="bottom-right"').places).toEqual([
      { x: expect.closeTo(4 * centimetre - 30, 3), y: expect.closeTo(2 * centimetre - 15, 3), width: 30, height: 15 },
    ])
    expect(withPicture('style:repeat="stretch"').image.tile).toBeUndefined()
  })

  it('are stretched and named where nobody could say how large they are, or they would be too many', () => {
    const named = ['pictures that tile a ground (stretched over it)']
    expect(withPicture('', new Uint8Array([1, 2, 3])).unlaid).toEqual(named)
    expect(withPicture('draw:fill-image-width="0.01cm" draw:fill-image-height="0.01cm"').unlaid).toEqual(named)
  })
})

describe('text without a colour of its own', () => {
  const colour = (shape: string, text: string, more: Partial<DrawingFixture> = {}) => {
    const page = drawn({
      pages: drawnPage(`${shape}${textFrame(shapeAt(1, 1, 4, 2), '<text:p>Ferry</text:p>', 'draw:style-name="t"')}`),
      automatic: [
        graphicStyle('t', 'fo:padding="0cm"', text),
        graphicStyle('d', 'draw:fill="solid" draw:fill-color="#102030"'),
        graphicStyle('l', 'draw:fill="solid" draw:fill-color="#f0e0d0"'),
      ].join(''),
      ...more,
    })
    return page.runs.find(run => run.text.includes('Ferry'))!
  }

  it('is white on what is dark, black on what is light, whatever lies above counting', () => {
    expect(colour(rectangle('d'), '').color).toBe('#ffffff')
    expect(colour(rectangle('l'), '').color).toBe('#000000')
    expect(colour(rectangle('d') + rectangle('l'), '').color).toBe('#000000')
    expect(colour(rectangle('d', shapeAt(6, 6, 1, 1)), '').color).toBe('#000000')
    expect(colour(rectangle('d'), 'fo:color="#000000"').color).toBe('#000000')
    expect(colour(rectangle('d'), 'fo:color="#000000" style:use-window-font-color="true"').color).toBe('#ffffff')
  })

  it('takes its lines along, looks at its own ground first, and at the page last', () => {
    const lined = colour(rectangle('d'), 'style:text-underline-style="solid" style:text-underline-width="auto"')
    expect(lined.underline?.color).toBe('#ffffff')
    expect(colour(rectangle('d'), 'fo:background-color="#ffffff"').color).toBe('#000000')
    const ground =
      '<style:style style:name="dp" style:family="drawing-page"><style:drawing-page-properties draw:fill="solid" ' +
      'draw:fill-color="#000040"/></style:style>'
    const dark = colour('', '', {
      pages: drawnPage(textFrame(shapeAt(1, 1, 4, 2), '<text:p>Ferry</text:p>'), ' draw:style-name="dp"'),
      automatic: ground,
    })
    expect(dark.color).toBe('#ffffff')
  })

  it('is told by outlines, not by their boxes', () => {
    const circle = (x: number) => `<draw:ellipse draw:style-name="d" ${shapeAt(x, 1, 4, 2)}/>`
    expect(colour(circle(0.2), '').color).toBe('#ffffff')
    // Its box reaches over the words, its round does not.
    expect(colour(`<draw:ellipse draw:style-name="d" ${shapeAt(0.9, 1.2, 8, 8)}/>`, '').color).toBe('#000000')
  })
})

describe('objects that are neither charts nor formulas', () => {
  const withObject = (picture: Uint8Array) => {
    const made = makeDrawing({
      pages: drawnPage(
        `<draw:frame ${shapeAt(1, 1, 4, 2)} draw:name="Prices"><draw:object xlink:href="./Object 1"/>` +
          `<draw:image xlink:href="./ObjectReplacements/Object 1"/></draw:frame>`,
      ),
      parts: [{ path: 'ObjectReplacements/Object 1', type: '', content: picture }],
    })
    const { composition } = session(made)
    return { shapes: displayPage(composition.pages[0]!).shapes, unlaid: composition.unlaid }
  }

  it('are shown by the picture that the file has of them, and that is said', () => {
    const { shapes, unlaid } = withObject(png(40, 20))
    expect(shapes).toMatchObject([{ kind: 'image', href: './ObjectReplacements/Object 1', name: 'Prices' }])
    expect(unlaid).toEqual([{ feature: 'objects (shown by the picture that the file has of them)', count: 1 }])
  })

  it('are a box where the picture is of a kind that no screen shows', () => {
    const { shapes, unlaid } = withObject(new TextEncoder().encode('VCLMTF and more'))
    expect(shapes[0]!.kind).toBe('object')
    expect(unlaid).toEqual([{ feature: 'objects (shown as an empty box)', count: 1 }])
  })
})
