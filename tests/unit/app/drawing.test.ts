import { beforeAll, describe, expect, it } from 'vitest'
import type { drawPage, keepOutlines } from '../../../app/desk/drawing'
import type { DisplayPage } from '../../../core/typeset/display'
import type { GlyphRun } from '../../../core/typeset/glyph-runs'
import { displayPage } from '../../../core/typeset/display'
import { after, type Matrix } from '../../../core/typeset/matrix'
import { makeOdt, session, textStyle, face, typesetter } from '../../support/fixtures'

/** A canvas that writes down what is asked of it. */
class Recorder {
  readonly calls: {
    readonly what: string
    readonly at: readonly unknown[]
    readonly fill: string
    readonly stroke: string
    readonly width: number
    readonly matrix: readonly number[]
    readonly dash: readonly number[]
  }[] = []
  readonly canvas = { width: 400, height: 400 }
  fillStyle = ''
  strokeStyle = ''
  lineWidth = 0
  font = ''
  private matrix: number[] = [1, 0, 0, 1, 0, 0]
  private dash: number[] = []
  private note(what: string, ...at: unknown[]) {
    this.calls.push({
      what,
      at,
      fill: this.fillStyle,
      stroke: this.strokeStyle,
      width: this.lineWidth,
      matrix: this.matrix,
      dash: this.dash,
    })
  }
  setTransform(...values: number[]) {
    this.matrix = values
  }
  transform(...values: number[]) {
    this.matrix = [...after(this.matrix as unknown as Matrix, values as unknown as Matrix)]
  }
  translate(x: number, y: number) {
    this.transform(1, 0, 0, 1, x, y)
  }
  clearRect() {}
  measureText(words: string) {
    return { width: words.length * 3 }
  }
  setLineDash(values: number[]) {
    this.dash = values
  }
  fillRect(...values: number[]) {
    this.note('fillRect', ...values)
  }
  strokeRect(...values: number[]) {
    this.note('strokeRect', ...values)
  }
  fill(path: unknown) {
    this.note('fill', path)
  }
  stroke(path?: unknown) {
    this.note('stroke', path)
  }
  fillText(...values: unknown[]) {
    this.note('fillText', ...values)
  }
  drawImage(...values: unknown[]) {
    this.note('drawImage', ...values)
  }
  beginPath() {
    this.note('beginPath')
  }
  moveTo(...values: number[]) {
    this.note('moveTo', ...values)
  }
  lineTo(...values: number[]) {
    this.note('lineTo', ...values)
  }
  quadraticCurveTo(...values: number[]) {
    this.note('quadraticCurveTo', ...values)
  }
  of(what: string) {
    return this.calls.filter(call => call.what === what)
  }
}

let drawing: { readonly drawPage: typeof drawPage; readonly keepOutlines: typeof keepOutlines }
beforeAll(async () => {
  ;(globalThis as Record<string, unknown>).Path2D = class {
    constructor(readonly path: string) {}
  }
  drawing = await import('../../../app/desk/drawing')
})

function open(body: string, automatic = '', faces = face('Spectral')): DisplayPage {
  return displayPage(
    session(
      makeOdt({
        faces,
        stylesFaces: faces,
        styles:
          '<style:default-style style:family="paragraph"><style:text-properties style:font-name="Spectral" ' +
          'fo:font-size="12pt"/></style:default-style>',
        automatic,
        body,
      }),
    ).composition.pages[0]!,
  )
}
function drawn(
  page: DisplayPage,
  marking: Partial<Parameters<typeof drawPage>[3]> = {},
  scale = 2,
  pictures = new Map<string, CanvasImageSource | 'unshown'>(),
): Recorder {
  const outlines = page.runs.flatMap(run =>
    run.glyphs.map(glyph => ({ face: run.face, glyph, path: typesetter.shaper.outline(run.face, glyph) })),
  )
  drawing.keepOutlines({ page, outlines, faces: [], families: [], voices: [], strays: [] })
  const canvas = new Recorder()
  drawing.drawPage(
    canvas as unknown as CanvasRenderingContext2D,
    page,
    { scale, x: 0, y: 0 },
    {
      shown: true,
      chosen: () => false,
      current: () => false,
      stray: () => false,
      whiteSpace: false,
      grid: 0,
      ...marking,
    },
    pictures,
  )
  return canvas
}

describe('a page on the canvas', () => {
  it('is its ground, then every glyph where the composition puts it', () => {
    const page = open('<text:p>sea</text:p>')
    const canvas = drawn(page)
    expect(canvas.calls[0]).toMatchObject({ what: 'fillRect', fill: '#FFFFFF', at: [0, 0, page.width, page.height] })
    const glyphs = canvas.of('fill')
    const [run] = page.runs
    expect(glyphs).toHaveLength(3)
    glyphs.forEach((call, at) => {
      const [a, , , d, x, y] = call.matrix as [number, number, number, number, number, number]
      expect([a, d]).toEqual([(12 / 1000) * 2, (-12 / 1000) * 2])
      expect(x).toBeCloseTo((run!.x + run!.xs[at]!) * 2, 5)
      expect(y).toBeCloseTo(run!.y * 2, 5)
    })
  })

  it('has text in its colour, on its background, with its lines', () => {
    const page = open(
      '<text:p><text:span text:style-name="T">sea</text:span></text:p>',
      textStyle(
        'T',
        'fo:color="#aa1100" fo:background-color="#eeeeaa" style:text-underline-style="dotted" ' +
          'style:text-underline-color="#0000ff" style:text-line-through-style="solid"',
      ),
    )
    const canvas = drawn(page)
    expect(canvas.of('fill').every(call => call.fill === '#aa1100')).toBe(true)
    expect(canvas.of('fillRect').some(call => call.fill === '#eeeeaa')).toBe(true)
    const strokes = canvas.of('stroke')
    expect(strokes.map(call => call.stroke)).toEqual(['#0000ff', '#aa1100'])
    expect([strokes[0]!.dash.length, strokes[1]!.dash.length]).toEqual([2, 0])
  })

  it('strokes outlined text, and lays a shadow under shadowed text', () => {
    const outlined = drawn(
      open(
        '<text:p><text:span text:style-name="T">ab</text:span></text:p>',
        textStyle('T', 'style:text-outline="true"'),
      ),
    )
    expect([outlined.of('fill').length, outlined.of('stroke').length]).toEqual([0, 2])
    const shadowed = drawn(
      open(
        '<text:p><text:span text:style-name="T">ab</text:span></text:p>',
        textStyle('T', 'fo:text-shadow="1pt 1pt"'),
      ),
    )
    expect(shadowed.of('fill').map(call => call.fill)).toEqual([
      'rgba(27, 36, 48, 0.35)',
      'rgba(27, 36, 48, 0.35)',
      '#000000',
      '#000000',
    ])
  })

  it('doubles lines, and waves them', () => {
    const lines = (type: string, style: string) =>
      drawn(
        open(
          '<text:p><text:span text:style-name="T">sea</text:span></text:p>',
          textStyle('T', `style:text-underline-style="${style}" style:text-underline-type="${type}"`),
        ),
      )
    expect(lines('double', 'solid').of('lineTo')).toHaveLength(2)
    expect(lines('single', 'wave').of('quadraticCurveTo').length).toBeGreaterThan(3)
  })
})

describe('marks', () => {
  const page = () =>
    open(
      '<text:p>here <text:span text:style-name="T">absent</text:span></text:p>',
      textStyle('T', 'style:font-name="Skerrow"'),
      face('Spectral') + face('Skerrow'),
    )

  it('dot a line under text whose face is absent, and under nothing else', () => {
    const canvas = drawn(page())
    const dotted = canvas.of('stroke').filter(call => call.stroke === '#564FA0')
    expect(dotted).toHaveLength(1)
    expect(dotted[0]!.dash).toEqual([0.8, 1.6])
  })

  it('are gone when they are taken away', () => {
    expect(drawn(page(), { shown: false }).of('stroke')).toEqual([])
  })

  it('lie behind what is chosen, and around the place that is walked to', () => {
    const shown = page()
    const at = shown.runs.findIndex((run: GlyphRun) => run.text === 'absent')
    const chosen = drawn(shown, { chosen: run => run === at })
    expect(chosen.of('fillRect').filter(call => call.fill === '#D3E6E4')).toHaveLength(1)
    const current = drawn(shown, { chosen: run => run === at, current: run => run === at })
    expect(current.of('fillRect').filter(call => call.fill === '#F3D9A4')).toHaveLength(1)
    expect(current.of('strokeRect')).toHaveLength(1)
  })

  it('show white space: a cup for every space, two for one that holds, a rail, a stair and a square', () => {
    const shown = open('<text:p>a b\u00A0c<text:tab/>d<text:line-break/>e</text:p><text:p/>')
    const plain = drawn(shown)
    const canvas = drawn(shown, { whiteSpace: true })
    expect(canvas.of('quadraticCurveTo').length - plain.of('quadraticCurveTo').length).toBe(3)
    expect(canvas.of('lineTo').length - plain.of('lineTo').length).toBe(2 + 3)
    expect(canvas.of('strokeRect').filter(call => call.stroke === '#3F8A86')).toHaveLength(2)
    expect(shown.signs.map(sign => sign.kind)).toEqual(['tab', 'break'])
  })

  it('put a small caret under where local formatting begins, once', () => {
    const shown = page()
    const canvas = drawn(shown, { stray: () => true })
    const single = drawn(shown, { stray: run => run === 1 })
    expect(
      [canvas.of('fill'), single.of('fill')].map(calls => calls.filter(call => call.fill === '#9A6412').length),
    ).toEqual([2, 1])
  })

  it('draw the baseline grid through the first line', () => {
    const shown = page()
    const canvas = drawn(shown, { grid: 20 })
    const rules = canvas
      .of('moveTo')
      .map(call => call.at[1] as number)
      .filter(
        y =>
          Math.abs((y - shown.lines[0]!.baseline) % 20) < 0.001 ||
          Math.abs(((y - shown.lines[0]!.baseline) % 20) + 20) < 0.001,
      )
    expect(rules.length).toBeGreaterThan(shown.height / 20 - 2)
  })

  it('say in words how much a frame runs over, at a size that can be read', () => {
    const frame =
      '<text:p><draw:frame draw:name="F" text:anchor-type="paragraph" svg:width="3cm" svg:height="1cm">' +
      '<draw:text-box><text:p>a</text:p><text:p>b</text:p><text:p>c</text:p>' +
      '</draw:text-box></draw:frame></text:p>'
    const canvas = drawn(open(frame), {}, 0.5)
    expect(canvas.of('fillText').map(call => call.at[0])).toEqual(['2 lines over'])
    expect(canvas.of('fillRect').some(call => call.fill === '#B4361E')).toBe(true)
  })

  it('name what stands for a picture or an object that cannot be shown', () => {
    const image =
      '<text:p><draw:frame text:anchor-type="as-char" svg:width="3cm" svg:height="1cm">' +
      '<draw:image xlink:href="Pictures/a.png"/></draw:frame></text:p>'
    expect(
      drawn(open(image))
        .of('fillText')
        .map(call => call.at[0]),
    ).toEqual(['Absent picture: a.png'])
    expect(
      drawn(open(image.replace('3cm', '1cm')))
        .of('fillText')
        .map(call => call.at[0]),
    ).toEqual(['Abse…'])
    expect(
      drawn(open(image), {}, 2, new Map([['Pictures/a.png', 'unshown' as const]]))
        .of('fillText')
        .map(call => call.at[0]),
    ).toEqual(['Picture of a kind that…'])
    const picture = {} as ImageBitmap
    const canvas = drawn(open(image), {}, 2, new Map([['Pictures/a.png', picture]]))
    expect(canvas.of('drawImage')[0]!.at[0]).toBe(picture)
    expect(canvas.of('fillText')).toEqual([])
  })
})
