import { createRequire } from 'node:module'
import { readFileSync } from 'node:fs'
import { document, face, page, paragraph, style, text } from '../core/format/odf/pieces'
import { escapeXml, writePackage } from '../core/package/new-package'
import { gull } from './gull'

/*
 * Galley menu: one sheet of A4, folded twice, from an outside studio. It names two families that nobody here has,
 * carries the file of a third, and its story about the kitchen runs on through frames on three panels.
 */

const faces =
  face('Brannock', 'roman') +
  face('Tolmere Script', 'script') +
  face('Jost', 'swiss') +
  ('<style:font-face style:name="Kalam" svg:font-family="Kalam" style:font-family-generic="script">' +
    '<svg:font-face-src><svg:font-face-uri xlink:href="Fonts/Kalam.ttf" xlink:type="simple">' +
    '<svg:font-face-format svg:string="truetype"/></svg:font-face-uri>' +
    '</svg:font-face-src></style:font-face>')
const graphic = (attributes: string, inside = '') =>
  `<style:graphic-properties ${attributes}>${inside}</style:graphic-properties>`
const frameStyle = (name: string, attributes: string, words: string, inside = '') =>
  style(name, 'graphic', graphic(attributes, inside) + words, 'Panel')

const styles = [
  `<style:default-style style:family="graphic">${graphic('draw:fill-color="#f6f4ee" svg:stroke-color="#1b2430"')}` +
    `${paragraph('style:tab-stop-distance="1cm"')}${text(
      'style:font-name="Jost" fo:font-size="11pt" fo:language="en" fo:country="GB"',
    )}</style:default-style>`,
  '<draw:stroke-dash draw:name="Fold" draw:style="rect" draw:dots1="1" draw:dots1-length="0.25cm" draw:distance="0.2cm"/>',
  style('standard', 'graphic', ''),
  style(
    'Panel',
    'graphic',
    graphic(
      'draw:fill="none" draw:stroke="none" draw:auto-grow-height="false" fo:padding="0cm" draw:textarea-vertical-align="top"',
    ),
    'standard',
  ),
  style(
    'Dish',
    'paragraph',
    '<style:paragraph-properties fo:margin-top="0.5cm"><style:tab-stops>' +
      '<style:tab-stop style:position="7.9cm" style:type="right" style:leader-style="dotted" ' +
      'style:leader-text="."/></style:tab-stops></style:paragraph-properties>' +
      text('style:font-name="Brannock" fo:font-size="15pt"'),
  ),
  style(
    'Said of it',
    'paragraph',
    paragraph('fo:margin-right="1.4cm"') + text('style:font-name="Jost" fo:font-size="10.5pt" fo:color="#5b6470"'),
  ),
  style(
    'Course',
    'paragraph',
    paragraph('fo:margin-top="0.5cm" fo:margin-bottom="0.1cm"') +
      text('style:font-name="Tolmere Script" fo:font-size="31pt" fo:color="#1f6f6b"'),
  ),
  style(
    'Story',
    'paragraph',
    paragraph('fo:text-align="justify" fo:margin-bottom="0.15cm" fo:line-height="16pt"') +
      text('style:font-name="Brannock" fo:font-size="12pt"'),
  ),
  style(
    'Small',
    'paragraph',
    paragraph('fo:margin-bottom="0.1cm"') + text('style:font-name="Jost" fo:font-size="9pt"'),
  ),
  style(
    'Name',
    'paragraph',
    paragraph('fo:text-align="center"') +
      text('style:font-name="Tolmere Script" fo:font-size="46pt" fo:color="#f6f4ee"'),
  ),
].join('')

const automatic = [
  frameStyle('menu', '', ''),
  frameStyle('story', '', ''),
  frameStyle('cover', 'draw:fill="solid" draw:fill-color="#1f6f6b"', ''),
  frameStyle('name', 'draw:textarea-vertical-align="middle"', ''),
  frameStyle('hand', '', text('style:font-name="Kalam" fo:font-size="17pt" fo:color="#f3d9a4"')),
  frameStyle('old', '', text('style:font-name="Kalam" fo:font-size="14pt" fo:color="#b4361e"')),
  frameStyle('columns', 'fo:padding="0.2cm"', '', '<style:columns fo:column-count="2" fo:column-gap="0.5cm"/>'),
  style('T1', 'text', text('style:font-name="Tolmere Script" fo:font-size="16pt"')),
  style('P1', 'paragraph', text('fo:font-size="14.8pt"'), 'Dish'),
].join('')

const at = (x: number, y: number, width: number, height: number) =>
  `svg:x="${x}cm" svg:y="${y}cm" svg:width="${width}cm" svg:height="${height}cm"`
const p = (name: string, words: string) => `<text:p text:style-name="${name}">${words}</text:p>`
const frame = (name: string, styleName: string, place: string, words: string, next = '') =>
  `<draw:frame draw:name="${name}" draw:style-name="${styleName}" ${place}>` +
  `<draw:text-box${next ? ` draw:chain-next-name="${next}"` : ''}>${words}</draw:text-box>` +
  `</draw:frame>`
const folds = [9.9, 19.8]
  .map(x => `<draw:line draw:style-name="fold" svg:x1="${x}cm" svg:y1="0cm" svg:x2="${x}cm" svg:y2="21cm"/>`)
  .join('')
const dishes = (course: string, list: readonly (readonly [string, string, string])[]) =>
  p('Course', course) +
  list
    .map(
      ([dish, price, said], index) =>
        p(index === 1 ? 'P1' : 'Dish', `${escapeXml(dish)}<text:tab/>${price}`) +
        p('Said_20_of_20_it', escapeXml(said)),
    )
    .join('')

const story = [
  'The galley of the Grey Plover is two metres by three, and one of the metres is stove. ' +
    'It was put in by a builder of lighthouses, who thought that a kitchen should be able ' +
    'to stand alone in bad weather, and it has.',
  'Everything on this sheet is made in it, except the bread, which comes aboard at twenty ' +
    'to seven in a basket and is warm until Tern Holm. After Tern Holm it is toasted.',
  'The cook takes no orders above the noise of the engine. Passengers hold up fingers: ' +
    'one for tea, two for soup, a fist for the stew. Children who hold up ten are given ten ' +
    'of something small.',
  'Fish is what the launch brought. When the launch brought none, there is none, and the price beside it is then for the potatoes.',
  'Plates go back through the hatch. The hatch is lower than it looks.',
]
  .map(words => p('Story', escapeXml(words)))
  .join('')

/** The menu. */
export function galleyMenu(): Uint8Array {
  const outside = [
    '<draw:frame draw:name="Gull" draw:style-name="menu" svg:x="2.2cm" svg:y="13.6cm" svg:width="5.4cm" ' +
      'svg:height="4cm"><draw:image xlink:href="Pictures/gull.png" xlink:type="simple"/>' +
      '<svg:desc>A gull over the quay, in two strokes of a brush</svg:desc></draw:frame>',
    frame('Story, 1', 'story', at(1, 1.4, 7.9, 7.6), story, 'Story, 2'),
    frame(
      'Allergies',
      'columns',
      at(10.9, 13.4, 7.9, 6),
      p(
        'Small',
        'Wheat is in the bread, the stew and the biscuits. Milk is in the tea unless it is asked ' +
          'to stay out. There are no nuts aboard since the squirrel.',
      ) + p('Small', 'Ask the cook for anything that is not written here, but not while she is pouring.'),
    ),
    frame('Story, 2', 'story', at(10.9, 1.4, 7.9, 5.6), '<text:p/>', 'Story, 3'),
    `<draw:rect draw:style-name="cover" ${at(19.8, 0, 9.9, 21)}/>`,
    frame('Name', 'name', at(20.4, 6.2, 8.7, 4.6), p('Name', 'The Galley')),
    '<draw:frame draw:name="By hand" draw:style-name="hand" svg:width="6cm" svg:height="1.2cm" ' +
      'draw:transform="rotate (0.122173) translate (21.6cm 15.4cm)">' +
      '<draw:text-box><text:p>soup today: leek</text:p></draw:text-box>' +
      '</draw:frame>',
    `<draw:frame draw:name="Old prices" draw:style-name="old" ${at(31, 4, 5.5, 3)}>` +
      `<draw:text-box><text:p>Old prices, not to be printed</text:p></draw:text-box></draw:frame>`,
  ].join('')
  const inside = [
    frame(
      'Mornings',
      'menu',
      at(1, 1.2, 7.9, 18.6),
      dishes('Mornings', [
        ['Porridge, salt or honey', '3.20', 'Made at six with last night’s milk.'],
        ['Egg on the bread', '4.10', 'Two eggs on Sundays.'],
        ['Kipper', '5.40', 'Smoked at the quay over what is left of boats.'],
        ['Tea', '1.00', 'The second is free, the third is a conversation.'],
      ]),
    ),
    frame(
      'Middays',
      'menu',
      at(10.9, 1.2, 7.9, 18.6),
      dishes('Middays', [
        ['Soup of the crossing', '4.60', 'It changes at every pier.'],
        ['Stew', '6.80', 'Mutton from Great Ossay, patience from the cook.'],
        ['Fish and potatoes', '7.20', 'When there is fish.'],
        ['Potatoes', '2.90', 'When there is none.'],
      ]),
    ),
    frame(
      'Evenings',
      'menu',
      at(20.8, 1.2, 7.9, 11),
      dishes('Evenings', [
        ['Cold plate', '6.10', 'Cheese, pickle, the heel of the loaf.'],
        ['Apple in a blanket', '3.90', 'The blanket is pastry.'],
        ['Hot rum', '3.00', 'After eight, and never on the bridge.'],
      ]),
    ),
    frame('Story, 3', 'story', at(20.8, 13.4, 7.9, 6.4), '<text:p/>'),
  ].join('')
  const content = document(
    'content',
    `<office:automatic-styles>${automatic}</office:automatic-styles><office:body><office:drawing>` +
      `<draw:page draw:name="Outside" draw:master-page-name="Sheet">${outside}</draw:page>` +
      `<draw:page draw:name="Inside" draw:master-page-name="Sheet">${inside}</draw:page>` +
      `</office:drawing></office:body>`,
    faces,
  )
  const stylesPart = document(
    'styles',
    `<office:styles>${styles}</office:styles><office:automatic-styles>` +
      (`${page('sheet', 'fo:page-width="29.7cm" fo:page-height="21cm" fo:margin="1cm"')}` +
        `${style(
          'fold',
          'graphic',
          graphic('draw:stroke="dash" draw:stroke-dash="Fold" svg:stroke-width="0.02cm" svg:stroke-color="#b9b3a3"'),
        )}</office:automatic-styles>`) +
      `<office:master-styles><style:master-page style:name="Sheet" style:page-layout-name="sheet">${folds}</style:master-page>` +
      `</office:master-styles>`,
    faces,
  )
  const meta =
    '<?xml version="1.0" encoding="UTF-8"?>\n<office:document-meta xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" ' +
    'xmlns:dc="http://purl.org/dc/elements/1.1/" office:version="1.3">' +
    '<office:meta><dc:title>Galley menu</dc:title></office:meta></office:document-meta>'
  const font = readFileSync(
    createRequire(import.meta.url).resolve('@expo-google-fonts/kalam/400Regular/Kalam_400Regular.ttf'),
  )
  return writePackage('application/vnd.oasis.opendocument.graphics', [
    { path: 'content.xml', type: 'text/xml', content },
    { path: 'styles.xml', type: 'text/xml', content: stylesPart },
    { path: 'meta.xml', type: 'text/xml', content: meta },
    { path: 'Pictures/gull.png', type: 'image/png', content: gull() },
    { path: 'Fonts/Kalam.ttf', type: 'application/x-font-ttf', content: new Uint8Array(font) },
  ])
}
