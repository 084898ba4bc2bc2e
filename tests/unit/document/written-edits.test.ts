import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { demoDocuments } from '../../../demo/documents'
import { openDocument } from '../../../core/document/open'
import { openOdt, makeDrawing, drawnPage, paragraphStyle, shapeAt, textFrame, textStyle } from '../../support/fixtures'
import { editTold, everyEdit } from '../../written/edits'

const told = join(import.meta.dirname, '../../written/edits')
const wonders = openOdt({
  styles: paragraphStyle('Standard') + paragraphStyle('Head', '', '', ' style:next-style-name="Standard"'),
  automatic: textStyle('T', 'fo:font-weight="bold"') + textStyle('U', 'fo:font-style="italic"'),
  body:
    '<text:h text:style-name="Head" text:outline-level="1"><text:bookmark text:name="top"/>Fares and  freight</text:h>' +
    '<text:p text:style-name="Standard">One <text:span text:style-name="T">bold <text:span text:style-name="U">and' +
    '</text:span></text:span><text:span text:style-name="U"> slanted</text:span> <text:date>1 May</text:date> end</text:p>' +
    '<text:p text:style-name="Standard">a<text:s text:c="3"/>b<text:tab/>c<text:line-break/>d&#8212;e&amp;f<![CDATA[<g>]]></text:p>' +
    '<text:list><text:list-item><text:p>item</text:p></text:list-item><text:list-item><text:h text:outline-level="2">' +
    'head of two</text:h><text:p>second</text:p></text:list-item></text:list>' +
    '<text:section text:name="S" text:protected="true"><text:p>kept safe</text:p></text:section>' +
    '<text:section text:name="R"><text:p>only one here</text:p></text:section>' +
    '<table:table table:name="A"><table:table-column/><table:table-row><table:table-cell><text:p>cell</text:p>' +
    '</table:table-cell></table:table-row></table:table>' +
    '<text:p>with a <text:a xlink:href="https://saltmere.example/"><text:span text:style-name="T">link</text:span></text:a>' +
    ' and a note<text:note text:note-class="footnote" text:id="n1"><text:note-citation>1</text:note-citation>' +
    '<text:note-body><text:p>small words</text:p></text:note-body></text:note> behind</text:p>' +
    '<text:p/><text:p><text:span text:style-name="T"/></text:p>',
})
const sheet = openDocument(
  makeDrawing({
    pages:
      drawnPage(
        `${textFrame(`draw:name="One" ${shapeAt(1, 1, 4, 2)}`, '<text:p>first words</text:p>')}` +
          `${textFrame(`draw:name="Two" ${shapeAt(1, 4, 4, 2)}`, '<text:p/>')}` +
          `<draw:g><draw:rect ${shapeAt(5, 5, 1, 1)}/><draw:g><draw:circle svg:cx="2cm" svg:cy="2cm" svg:r="1cm"/>` +
          `</draw:g><draw:glue-point draw:id="4"/></draw:g>` +
          `<draw:line svg:x1="6cm" svg:y1="6cm" svg:x2="7cm" svg:y2="8cm"/>` +
          `<draw:connector svg:x1="1cm" svg:y1="1cm" svg:x2="2cm" svg:y2="2cm" svg:d="M0 0"/>` +
          `<draw:rect svg:width="2cm" svg:height="1cm" draw:transform="rotate (0.5) translate (3cm 3cm)"/>` +
          `<draw:ellipse svg:cx="3cm" svg:cy="3cm" svg:rx="1cm" svg:ry="2cm"/>` +
          `<draw:circle svg:x="3cm" svg:y="3cm" svg:width="1cm" svg:height="1cm"/>`,
      ) + drawnPage(''),
  }),
)

describe('every kind of edit, at some places of each sort,', () => {
  it.each([
    ...demoDocuments
      .filter(({ fileName }) => /Sailing|Season|Safety/.test(fileName))
      .map(({ fileName, make }) => ({ name: fileName, document: openDocument(make()) })),
    { name: 'Text of many sorts', document: wonders },
    { name: 'Sheet of many shapes', document: sheet },
  ])('writes into $name what it wrote, and undoing gives the bytes', async ({ name, document }) => {
    const all = [...everyEdit(document)].map(edit => editTold(document, edit)).join('\n')
    expect(all).not.toContain('UNDOING')
    await expect(`${all}\n`).toMatchFileSnapshot(join(told, `${name}.txt`))
  })
})
