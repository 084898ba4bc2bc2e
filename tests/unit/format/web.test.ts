import { unzipSync } from 'fflate'
import { PNG } from 'pngjs'
import { describe, expect, it } from 'vitest'
import { writeEpub } from '../../../core/format/epub/write'
import { writeSite, type WebDocument } from '../../../core/format/web/site'
import type { FaceRecord } from '../../../core/font/face'
import { DocumentSession } from '../../../core/session'
import { sailingGuide } from '../../../demo/sailing-guide'
import { startSubsetter } from '../../../server/library/harfbuzz'
import { packFace } from '../../../server/library/font-file'
import { shippedLibrary } from '../../../server/library/shipped'
import { face, makeOdt, paragraphStyle, textStyle, typesetter, type Fixture } from '../../support/fixtures'
import { outlineOfText } from '../../support/tagged-pdf'
import { paragraphsOfXhtml } from '../../support/web-text'

const { load } = shippedLibrary()
const works = { load, subsetter: startSubsetter(), pack: packFace }
const options = { name: 'Notice', made: Date.UTC(2026, 0, 1) }
const small = (fixture: Fixture) =>
  makeOdt({
    faces: face('Spectral') + face('Jost'),
    stylesFaces: face('Spectral') + face('Jost'),
    styles:
      '<style:default-style style:family="paragraph"><style:text-properties style:font-name="Spectral" fo:font-size="12pt" ' +
      'fo:language="en" fo:country="GB"/></style:default-style>' +
      paragraphStyle(
        'Lead',
        'fo:font-size="15pt" fo:font-style="italic"',
        'fo:margin-top="6pt" fo:text-align="center"',
      ),
    ...fixture,
  })
const text = (written: WebDocument, path: string) =>
  new TextDecoder().decode(written.files.find(file => file.path === path)?.bytes ?? new Uint8Array())
const site = async (fixture: Fixture) => {
  const written = await writeSite(await DocumentSession.start(small(fixture), typesetter), works, options)
  const html = text(written, 'index.html')
  return { ...written, html, body: /<body>\n([\s\S]*)\n<\/body>/.exec(html)![1]!, css: text(written, 'style.css') }
}
const p = (inside: string, style = '') => `<text:p${style ? ` text:style-name="${style}"` : ''}>${inside}</text:p>`
const h = (level: number, inside: string) => `<text:h text:outline-level="${level}">${inside}</text:h>`

describe('a page for browsers', () => {
  it('has headings and paragraphs in classes that are called after their styles and say how they look', async () => {
    const { body, css } = await site({ body: h(1, 'Boats') + p('Three of them.', 'Lead') + p('Four, once.', 'Lead') })
    expect(body).toBe(
      '<h1 class="text">Boats</h1>\n<p class="lead">Three of them.</p>\n<p class="lead">Four, once.</p>',
    )
    const lead = /p\.lead \{([\s\S]*?)\}/.exec(css)![1]!
    expect(lead).toContain('font-family: "Spectral", "Spectral fallback", serif;')
    expect(lead).toContain('font-size: 15pt;')
    expect(lead).toContain('font-style: italic;')
    expect(lead).toContain('text-align: center;')
    expect(lead).toContain('margin: 6pt 0pt 0pt 0pt;')
  })

  it('says of words only what departs from their paragraph', async () => {
    const { body, css } = await site({
      automatic: textStyle('B', 'fo:font-weight="bold"') + textStyle('F', 'fo:language="fr" fo:country="FR"'),
      body: p(
        'plain <text:span text:style-name="B">bold</text:span> and <text:span text:style-name="F">bon voyage</text:span>',
      ),
    })
    expect(body).toContain(
      'plain <span class="words">bold</span> and <span lang="fr-FR" xml:lang="fr-FR">bon voyage</span>',
    )
    expect(/span\.words \{([\s\S]*?)\}/.exec(css)![1]!.trim()).toBe('font-weight: 700;')
  })

  it('keeps lists with their own labels, tables with their heads, breaks, tabs and rows of spaces', async () => {
    const list =
      '<text:list-style style:name="L"><text:list-level-style-number text:level="1" style:num-format="a" ' +
      'style:num-suffix=")"/></text:list-style>'
    const cell = (inside: string, more = '') => `<table:table-cell${more}>${p(inside)}</table:table-cell>`
    const { body } = await site({
      automatic: list,
      body:
        `<text:list text:style-name="L"><text:list-item>${p('one')}</text:list-item>` +
        `<text:list-item>${p('two')}</text:list-item></text:list>` +
        `<table:table><table:table-column table:number-columns-repeated="2"/><table:table-header-rows><table:table-row>${cell('Pier')}` +
        `${cell('Fare')}</table:table-row></table:table-header-rows><table:table-row>` +
        `${cell('both', ' table:number-columns-spanned="2"')}<table:covered-table-cell/></table:table-row></table:table>` +
        p('a<text:tab/>b<text:line-break/>c<text:s text:c="3"/>d'),
    })
    expect(body).toMatch(
      /<ol class="list">\n<li style="list-style-type: &quot;a\) &quot;"><p class="[^"]*">one<\/p><\/li>/,
    )
    expect(body).toContain('<thead>\n<tr>\n<th class="cell" scope="col">')
    expect(body).toContain('<td class="cell" colspan="2">')
    expect(body).toContain('a<span class="white">\t</span>b<br/>c<span class="white">   </span>d')
  })

  it('has notes at its end, called and back, links, and places that links lead to', async () => {
    const note =
      '<text:note text:note-class="footnote"><text:note-citation>1</text:note-citation><text:note-body>' +
      `${p('Only in summer.')}</text:note-body></text:note>`
    const { body } = await site({
      body:
        h(1, '<text:bookmark text:name="piers"/>Piers') +
        p(
          `Daily${note}, <text:a xlink:href="#piers">see above</text:a>, ` +
            `<text:a xlink:href="https://saltmere.example/a b">there</text:a> ` +
            `and <text:a xlink:href="javascript:alert(1)">nowhere</text:a>`,
        ),
    })
    expect(body).toContain('<h1 id="place-1"')
    expect(body).toContain('<a class="call" id="note-1-call" href="#note-1" role="doc-noteref">1</a>')
    expect(body).toMatch(
      /<aside id="note-1" role="doc-footnote"><a class="back" href="#note-1-call">1<\/a>\n<p[^>]*>Only in summer\.<\/p>/,
    )
    expect(body).toContain('<a href="#place-1">see above</a>')
    expect(body).toContain('<a href="https://saltmere.example/a%20b">there</a>')
    expect(body).toContain('and nowhere')
    expect(body).not.toContain('javascript')
  })

  it('has pictures with what they show, and says which are left', async () => {
    const png = new PNG({ width: 4, height: 4 })
    const frame = (href: string) =>
      `<draw:frame text:anchor-type="as-char" svg:width="2cm" svg:height="2cm"><draw:image xlink:href="${href}"/>` +
      '<svg:desc>The pier &amp; the quay</svg:desc></draw:frame>'
    const written = await site({
      parts: [{ path: 'Pictures/a.png', type: 'image/png', content: new Uint8Array(PNG.sync.write(png)) }],
      body: p(frame('Pictures/a.png') + frame('Pictures/a.png') + frame('Pictures/none.png')),
    })
    expect(written.body).toContain('<img src="pictures/picture-1.png" alt="The pier &amp; the quay" class="picture"/>')
    expect(written.files.filter(file => file.path.startsWith('pictures/'))).toHaveLength(1)
    expect(written.pictures).toEqual(['Pictures/none.png'])
    expect(written.body).toContain('<span class="missing">The pier &amp; the quay</span>')
  })

  it('puts beside it what licences allow, cut down, and what stands in as wide and as high', async () => {
    const session = await DocumentSession.start(small({ body: p('Hafen') }), typesetter)
    const written = await writeSite(session, works, options)
    const font = written.files.find(file => file.path === 'fonts/Spectral-Regular.woff2')!
    const whole = typesetter.library.faces.find((each: FaceRecord) => each.fullName === 'Spectral Regular')!
    expect(String.fromCharCode(...font.bytes.subarray(0, 4))).toBe('wOF2')
    expect(font.bytes.length).toBeLessThan(whole.fileSize / 10)
    const css = text(written, 'style.css')
    expect(css).toContain('src: url("fonts/Spectral-Regular.woff2") format("woff2");')
    expect(css).toMatch(
      /font-family: "Spectral fallback";[^}]*src: local\("Liberation Serif"\), local\("Times New Roman"\);/,
    )
    const adjust = Number(/size-adjust: ([\d.]+)%/.exec(css)![1])
    expect(adjust).toBeGreaterThan(90)
    expect(adjust).toBeLessThan(120)
    const ascent = Number(/ascent-override: ([\d.]+)%/.exec(css)![1])
    expect(ascent).toBeCloseTo((whole.measures.lineAscent / 10 / adjust) * 100, 0)
    const refused = await writeSite(session, works, {
      ...options,
      rightOf: () => ({ use: 'web page', right: 'not allowed', from: 'the contract says so' }),
    })
    expect(refused.files.map(file => file.path)).toEqual(['index.html', 'style.css'])
    expect(refused.faces).toEqual([
      { name: 'Spectral Regular', reason: 'web page: not allowed (the contract says so)' },
    ])
  })

  it('says nothing but what it is: text cannot become markup', async () => {
    const { body } = await site({ body: p('&lt;script&gt;alert("1")&lt;/script&gt; &amp; more') })
    expect(body).toContain('&lt;script&gt;alert(&quot;1&quot;)&lt;/script&gt; &amp; more')
  })
})

describe('a book', () => {
  const book = async (bytes: Uint8Array) =>
    writeEpub(await DocumentSession.start(bytes, typesetter), { load, subsetter: works.subsetter }, options)

  it('is a zip whose first entry says what it is, not packed', async () => {
    const { bytes } = await book(small({ body: p('words') }))
    expect(String.fromCharCode(...bytes.subarray(30, 58))).toBe('mimetypeapplication/epub+zip')
    const files = unzipSync(bytes)
    expect(Object.keys(files)).toEqual([
      'mimetype',
      'META-INF/container.xml',
      'EPUB/package.opf',
      'EPUB/nav.xhtml',
      'EPUB/chapter-001.xhtml',
      'EPUB/style.css',
      'EPUB/fonts/Spectral-Regular.ttf',
    ])
    const about = new TextDecoder().decode(files['EPUB/package.opf'])
    expect(about).toContain('<dc:language>en-GB</dc:language>')
    expect(about).toContain('<meta property="dcterms:modified">2026-01-01T00:00:00Z</meta>')
  })

  it('has a file for every chapter, and contents that nest as the headings do', async () => {
    const written = await book(
      small({
        body:
          p('before') +
          h(1, 'One') +
          p('<text:a xlink:href="#three">on</text:a>') +
          h(3, 'Deep') +
          h(2, 'Less') +
          h(1, 'Two') +
          p('<text:bookmark text:name="three"/>there'),
      }),
    )
    expect(written.files.filter(file => file.path.startsWith('chapter'))).toHaveLength(3)
    expect(text(written, 'chapter-002.xhtml')).toMatch(/<a href="chapter-003\.xhtml#place-\d+">on<\/a>/)
    const nav = text(written, 'nav.xhtml').replace(/\n| (id|href|epub:type)="[^"]*"/g, '')
    expect(nav).toContain(
      '<nav><ol><li><a>One</a><ol><li><a>Deep</a></li><li><a>Less</a></li></ol></li><li><a>Two</a></li></ol></nav>',
    )
  })

  it('tells sizes by the size of most text, so that readers can enlarge it', async () => {
    const written = await book(small({ body: p('most of the text is here, in the common size') + p('less', 'Lead') }))
    const css = text(written, 'style.css')
    expect(css).toMatch(/p\.text \{[^}]*font-size: 1rem;/)
    expect(css).toMatch(/p\.lead \{[^}]*font-size: 1\.25rem;[^}]*\}/)
  })

  it('has the words of its document', async () => {
    const bytes = sailingGuide()
    const written = await book(bytes)
    const own = outlineOfText(bytes).map(line => line.replace(/^((L|TH|TD|Note) )*(P|H\d) /, ''))
    const its = written.files
      .filter(file => file.path.startsWith('chapter'))
      .flatMap(file => paragraphsOfXhtml(new TextDecoder().decode(file.bytes)))
    expect([...its].sort()).toEqual([...own].sort())
  })
})
