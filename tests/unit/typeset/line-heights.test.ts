import { describe, expect, it } from 'vitest'
import { displayPage, type DisplayPage } from '../../../core/typeset/display'
import { Typesetter } from '../../../core/typeset/look'
import {
  face,
  library,
  makeOdt,
  paragraphStyle,
  sessionOf,
  settingsPart,
  textStyle,
  typesetter,
  type Fixture,
} from '../../support/fixtures'
import { DocumentSession } from '../../../core/session'

/*
 * What decides how high a line is where it is not the face that shows it, and what of frames counts below them: as files
 * behave that tell where their pages ended.
 */

const faces = ['DejaVu Serif', 'Courier', 'Courier 10 Pitch', 'Unheard', 'Spectral'].map(name => face(name)).join('')
const base =
  '<style:default-style style:family="paragraph"><style:text-properties style:font-name="DejaVu Serif" ' +
  'fo:font-size="12pt"/></style:default-style>'
const named = (family: string, size = '12pt') =>
  paragraphStyle('P', `style:font-name="${family}" fo:font-size="${size}"`)
const two = '<text:p text:style-name="P">a</text:p><text:p text:style-name="P">b</text:p>'
const whole = settingsPart({ PrinterIndependentLayout: 'high-resolution' })
const pageOf = (fixture: Fixture): DisplayPage =>
  displayPage(sessionOf({ faces, stylesFaces: faces, styles: base, ...fixture }).composition.pages[0]!)
const step = (fixture: Fixture, at = 0): number => {
  const { lines } = pageOf({ body: two, ...fixture })
  return lines[at + 1]!.y - lines[at]!.y
}

describe('heights of lines', () => {
  it('are those of the family that is named, where they are known, whatever shows it', () => {
    expect(step({ automatic: named('Courier') })).toBeCloseTo(14.4, 6)
    expect(step({ automatic: named('Courier 10 Pitch') })).toBeCloseTo(13.9, 6)
    // Liberation Mono, which shows both, has lines of its own: so has whatever stands in for a family nobody knows.
    expect(step({ automatic: named('Liberation Mono') })).toBeCloseTo(13.6, 6)
    const standIns = library.withStandIns([{ family: 'Courier', script: 'any', to: 'Spectral' }])
    const shown = (family: string) =>
      displayPage(
        DocumentSession.open(
          makeOdt({ faces, stylesFaces: faces, styles: base, automatic: named(family), body: two }),
          new Typesetter(standIns, typesetter.shaper),
        ).composition.pages[0]!,
      )
    const [first, second] = shown('Courier').lines
    expect(second!.y - first!.y).toBeCloseTo(14.4, 6)
  })

  it('of signs that come from another face are of that face', () => {
    const ordinary = step({ automatic: named('Courier'), body: two })
    const foreign = step({ automatic: named('Courier'), body: two.replace('a</text:p>', 'aक</text:p>') })
    expect(foreign).toBeGreaterThan(ordinary)
  })

  it('are rounded as wholes where the document was laid out at high resolution, else in their parts', () => {
    // DejaVu Serif at 12 points: 11.139 above the baseline and 2.83 below, together 13.969.
    expect(step({ automatic: named('DejaVu Serif') })).toBeCloseTo(14, 6)
    expect(step({ automatic: named('DejaVu Serif'), parts: [whole] })).toBeCloseTo(13.95, 6)
    const low = settingsPart({ PrinterIndependentLayout: 'low-resolution' })
    expect(step({ automatic: named('DejaVu Serif'), parts: [low] })).toBeCloseTo(14, 6)
  })

  it('without text are those of a span that stands empty there', () => {
    const automatic = textStyle('Small', 'fo:font-size="6pt"') + textStyle('Large', 'fo:font-size="24pt"')
    const after = (inside: string) =>
      step({ automatic, body: `<text:p>${inside}</text:p><text:p>b</text:p>`, parts: [whole] })
    const plain = after('')
    expect(after('<text:span text:style-name="Small"/>')).toBeCloseTo(plain / 2, 0)
    expect(after('<text:span text:style-name="Large"><text:span text:style-name="Small"/></text:span>')).toBeCloseTo(
      plain / 2,
      0,
    )
    // The first of several; and none where there is text.
    expect(after('<text:span text:style-name="Large"/><text:span text:style-name="Small"/>')).toBeCloseTo(2 * plain, 0)
    expect(after('a<text:span text:style-name="Large"/>')).toBeCloseTo(plain, 6)
  })

  it('do not grow by letters that are raised or lowered as the reader likes, only by how far a file says', () => {
    const raised = (position: string) =>
      step({
        automatic: textStyle('Raised', `style:text-position="${position}"`),
        body: '<text:p>a<text:span text:style-name="Raised">2</text:span></text:p><text:p>b</text:p>',
      })
    const plain = step({ body: '<text:p>a</text:p><text:p>b</text:p>' })
    expect(raised('super 58%')).toBeCloseTo(plain, 6)
    expect(raised('sub 58%')).toBeCloseTo(plain, 6)
    expect(raised('33% 80%')).toBeGreaterThan(plain + 1)
    expect(raised('-33% 58%')).toBeGreaterThan(plain + 1)
  })
})

describe('paddings beside text', () => {
  const width = (border: string, values: Record<string, string>) => {
    const { runs } = pageOf({
      automatic: paragraphStyle('P', '', `fo:padding="20pt" ${border} fo:text-align="end"`),
      body: '<text:p text:style-name="P">a</text:p>',
      parts: [settingsPart(values)],
    })
    return runs[0]!.x + runs[0]!.width
  }
  const without = { AllowPaddingWithoutBorders: 'false' }

  it('count where there is a border, and where there is none unless a setting says not', () => {
    const below = 'fo:border="none" fo:border-bottom="1pt solid #000000"'
    expect(width(below, without) - width(below, {})).toBeCloseTo(20, 6)
    const around = 'fo:border="1pt solid #000000"'
    expect(width(around, without)).toBeCloseTo(width(around, {}), 6)
  })

  it('above the text count all the same', () => {
    const top = (values: Record<string, string>) =>
      pageOf({
        automatic: paragraphStyle('P', '', 'fo:padding="20pt" fo:border="none"'),
        body: '<text:p>x</text:p><text:p text:style-name="P">a</text:p>',
        parts: [settingsPart(values)],
      }).lines[1]!.y
    expect(top(without)).toBeCloseTo(top({}), 6)
  })
})

describe('frames that grow with their text', () => {
  const framed = (graphic: string, space = '') => {
    const page = pageOf({
      automatic:
        `<style:style style:name="G" style:family="graphic"><style:graphic-properties style:wrap="none" ` +
        `style:vertical-rel="paragraph" ${graphic}/></style:style>${paragraphStyle('S', '', space)}`,
      body:
        '<text:p>x</text:p><text:p><draw:frame draw:style-name="G" text:anchor-type="paragraph" svg:width="3cm">' +
        '<draw:text-box fo:min-height="1pt"><text:p text:style-name="S">in</text:p></draw:text-box></draw:frame>y</text:p>',
    })
    const at = (text: string) => page.runs.find(run => run.text === text)!.y
    return { inside: at('in') - at('x'), after: at('y') - at('in') }
  }

  it('end with their last line: space below the last paragraph is none of theirs', () => {
    const top = 'style:vertical-pos="top"'
    expect(framed(top, 'fo:margin-bottom="30pt"')).toEqual(framed(top))
  })

  it('have their own space above them where they stand at the top, and none where a file says from where', () => {
    const plain = framed('style:vertical-pos="top"')
    expect(framed('style:vertical-pos="top" fo:margin-top="9pt"').inside).toBeCloseTo(plain.inside + 9, 6)
    const from = framed('style:vertical-pos="from-top"')
    expect(framed('style:vertical-pos="from-top" fo:margin-top="9pt"').inside).toBeCloseTo(from.inside, 6)
  })
})
