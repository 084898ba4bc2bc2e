import { describe, expect, it } from 'vitest'
import { openDocument } from '../../../core/document/open'
import { stylesToCss } from '../../../core/format/styles/css'
import { stylesTemplate } from '../../../core/format/styles/template'
import { stylesToTokens } from '../../../core/format/styles/tokens'
import { fromTemplate } from '../../../core/format/odf/from-template'
import { galleyMenu } from '../../../demo/galley-menu'
import { sailingGuide } from '../../../demo/sailing-guide'
import { seasonReview } from '../../../demo/season-review'
import { parts } from '../../support/independent'
import { drawingOf, face, graphicStyle, makeOdt, paragraphStyle, session, textStyle } from '../../support/fixtures'

const document = makeOdt({
  faces: face('Spectral'),
  stylesFaces: face('Spectral'),
  title: 'Notice',
  styles:
    '<style:default-style style:family="paragraph"><style:text-properties style:font-name="Spectral" ' +
    'fo:font-size="12pt"/></style:default-style>' +
    paragraphStyle('Body', '', 'fo:margin-bottom="6pt" fo:line-height="150%"') +
    paragraphStyle('Lead', 'fo:font-size="18pt" fo:color="#1f6f6b"', '', ' style:parent-style-name="Body"') +
    textStyle('Boat', 'fo:font-style="italic"'),
  body: '<text:p text:style-name="Lead">secret words</text:p>',
} as never)

describe('the styles of a document alone', () => {
  it('as CSS: a class each, paragraphs whole, character styles only what they say', () => {
    const css = stylesToCss(session(document))
    const rule = (name: string) => new RegExp(`\\n?\\.${name} \\{\\n([\\s\\S]*?)\\n\\}`).exec(css)![1]!
    expect(rule('lead')).toContain('font-size: 18pt;')
    expect(rule('lead')).toContain('color: #1f6f6b;')
    expect(rule('lead')).toContain('margin: 0pt 0pt 6pt 0pt;')
    expect(rule('body')).not.toContain('color')
    expect(rule('boat').trim()).toBe('font-style: italic;')
    expect(css).toContain('font-family: "Spectral fallback";')
    expect(css).not.toContain('url(')
  })

  it('as tokens: typography with colour and spaces, in px', () => {
    const tokens = JSON.parse(stylesToTokens(session(document))) as Record<string, Record<string, unknown>>
    expect(tokens.paragraph!.Lead).toEqual({
      type: {
        $type: 'typography',
        $value: {
          fontFamily: ['Spectral'],
          fontSize: { value: 24, unit: 'px' },
          fontWeight: 400,
          letterSpacing: { value: 0, unit: 'px' },
          lineHeight: 1.5,
        },
      },
      color: { $type: 'color', $value: { colorSpace: 'srgb', components: [0.1216, 0.4353, 0.4196], hex: '#1f6f6b' } },
      after: { $type: 'dimension', $value: { value: 8, unit: 'px' } },
    })
    expect(tokens.character!.Boat).toMatchObject({
      type: { $extensions: { 'org.w3.css': { 'font-style': 'italic' } } },
    })
  })

  it('of a deck: its placeholders, level by level, and frames and cells that speak of text', () => {
    const deck = session(seasonReview())
    const tokens = JSON.parse(stylesToTokens(deck)) as Record<string, Record<string, { type: { $value: object } }>>
    expect(Object.keys(tokens)).toEqual(['$description', 'paragraph', 'character', 'placeholder', 'frame'])
    expect(tokens.placeholder!['Saltmere-title']!.type.$value).toMatchObject({
      fontFamily: ['Spectral SemiBold'],
      fontSize: { value: 42.67, unit: 'px' },
    })
    expect(tokens.placeholder!['Saltmere-outline2']!.type.$value).toMatchObject({ fontSize: { value: 22.67 } })
    const css = stylesToCss(deck)
    expect(css).toMatch(/\.saltmere-title \{[^}]*font-size: 32pt;/)
    expect(css).toMatch(/\.saltmere-outline2 \{[^}]*font-size: 17pt;/)
    // A style that only says how shapes are filled is none of text.
    const plain = drawingOf({
      styles: graphicStyle('Filled', 'draw:fill="solid"') + graphicStyle('Spoken', '', 'fo:font-size="9pt"'),
      pages: '',
    })
    expect(stylesToCss(plain)).toContain('.spoken {')
    expect(stylesToCss(plain)).not.toContain('filled')
  })

  it('as a template: opened it is empty and has the same styles, and nothing of the text came along', () => {
    const bytes = stylesTemplate(openDocument(document))
    expect(openDocument(bytes).template).toBe(true)
    expect(JSON.stringify(Object.values(parts(bytes)).map(part => new TextDecoder().decode(part)))).not.toContain(
      'secret',
    )
    const { bytes: made } = fromTemplate(bytes)
    expect(openDocument(made).template).toBe(false)
    expect(stylesToTokens(session(made)).replace(/"\$description": ".*"/, '')).toBe(
      stylesToTokens(session(document)).replace(/"\$description": ".*"/, ''),
    )
  })

  it.each([
    ['a text', sailingGuide],
    ['a presentation', seasonReview],
    ['a drawing', galleyMenu],
  ])('as a template of %s of the demo', (_, write) => {
    const bytes = write()
    const template = stylesTemplate(openDocument(bytes))
    const { kind } = openDocument(bytes)
    expect(openDocument(template)).toMatchObject({ kind, template: true })
    expect(session(fromTemplate(template).bytes).composition.pages).toHaveLength(1)
    const [before, after] = [parts(bytes), parts(template)]
    expect(after['styles.xml']).toEqual(before['styles.xml'])
    expect(Object.keys(after).filter(path => path.startsWith('Object') || path.startsWith('Pictures/'))).toEqual([])
  })
})
