import type { DocumentSession } from '../../session'
import { inPoints, paragraphDeclarations, textDeclarations } from '../web/declarations'
import { WebFaces } from '../web/faces'
import { StyleSheet } from '../web/style-sheet'
import { namedLooks } from './named'

/** What the widths of faces are compared on, where there is no text: letters about as often as they stand in English. */
const sample = 'the quick ferry leaves seven small islands every morning and comes home again at night'

/**
 * The named styles of a document as CSS: a class for each, character styles for words and all others for whole blocks. Faces
 * are named, with what stands in for each while it is late; their files are not put beside it.
 */
export function stylesToCss(session: DocumentSession): string {
  const { typesetter } = session
  const faces = new WebFaces(typesetter, 'web page')
  const sheet = new StyleSheet()
  for (const { family, title, text, properties } of namedLooks(session)) {
    const look = typesetter.look(text, 'western')
    const { effective } = text
    const families = faces.familiesFor(look, effective.slots.western.font.family, sample)
    const type = textDeclarations(look, effective, 'western', families, inPoints)
    if (type.get('color') === 'inherit') type.delete('color')
    if (family !== 'text')
      sheet.classOf(
        '',
        title,
        new Map([...paragraphDeclarations({ properties, text }, look, inPoints, false), ...type]),
      )
    else {
      // A character style says what it and those it descends from say, and leaves all else to the paragraph.
      const own = new Set(effective.layers.flatMap(layer => (layer.from === 'default' ? [] : Object.keys(layer.text))))
      const said = [...type].filter(([property]) => saidBy[property]?.some(name => own.has(name)))
      sheet.classOf('', title, new Map(said))
    }
  }
  return `${[faces.fallbacks(), sheet.css].filter(Boolean).join('\n')}\n`
}

/** Which attributes of OpenDocument a property of CSS comes of. */
const saidBy: Readonly<Record<string, readonly string[]>> = {
  'font-family': ['style:font-name', 'fo:font-family'],
  'font-size': ['fo:font-size', 'style:text-position'],
  'font-weight': ['fo:font-weight'],
  'font-style': ['fo:font-style'],
  color: ['fo:color'],
  'letter-spacing': ['fo:letter-spacing'],
  'text-transform': ['fo:text-transform'],
  'font-variant-caps': ['fo:font-variant'],
  'font-kerning': ['style:letter-kerning'],
  'text-decoration': ['style:text-underline-style', 'style:text-line-through-style'],
  'background-color': ['fo:background-color'],
  'vertical-align': ['style:text-position'],
  'line-height': ['style:text-position'],
}
