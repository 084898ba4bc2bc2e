import { sameFamily } from '../document/font-family'
import type { Library } from '../font/library'
import type { AbsentName } from '../font/suggest'
import type { Reading } from '../style/reading'
import { percent } from '../style/properties'
import type { Composition } from '../typeset/compose'
import { absentLayers, type AbsentFace, type AbsentList } from './absent-model'
import { AbsentTally, type AbsentFamily } from './absent-tally'

/** Every absent family with its places, most text first. Text in the marks of empty paragraphs counts no characters. */
export function listAbsent(reading: Reading, library: Library, composition: Composition): AbsentList {
  const tally = new AbsentTally(library, composition)
  for (const text of reading.texts) tally.takeText(text)
  tally.takeReferences(reading.document)
  tally.takeDeclarations(reading.document)
  const faces = [...tally.families.values()]
    .map((own): AbsentFace => ({
      family: own.family,
      status: tally.statusOf(own.family) === 'alias' ? 'alias' : 'absent',
      symbols: own.symbols,
      characters: own.characters,
      onlySpaces: own.characters > 0 && own.spaces,
      emptyMarks: own.emptyMarks,
      layers: absentLayers.flatMap(layer => {
        const found = own.layers.get(layer)
        return found ? [{ ...found, layer, owners: [...found.owners].slice(0, 30) }] : []
      }),
      pages: [...own.pages].sort((a, b) => a - b),
      standIn: own.standIn,
      reason: own.reason,
      name: nameOf(own),
      files: [...new Set(own.declarations.flatMap(face => face.files))],
      codePoints: [...own.codePoints],
    }))
    .sort(
      (a, b) =>
        a.status.localeCompare(b.status) ||
        b.characters - a.characters ||
        b.emptyMarks - a.emptyMarks ||
        a.family.localeCompare(b.family),
    )
  return { faces, places: tally.places.filter(place => faces.some(face => sameFamily(face.family, place.family))) }
}

/** What the document says of a family beside its name. */
function nameOf(own: AbsentFamily): AbsentName {
  const stated = (attribute: string) =>
    own.declarations.map(face => face.attributes[attribute]).find(value => value !== undefined && value !== '') ?? ''
  const upem = Number.parseFloat(stated('svg:units-per-em')) || 1000
  const measure = (attribute: string): number | null => {
    const value = Number.parseFloat(stated(attribute))
    return Number.isFinite(value) && value > 0 ? (percent(stated(attribute)) ?? value / upem) * 1000 : null
  }
  const measures = {
    xHeight: measure('svg:x-height'),
    capHeight: measure('svg:cap-height'),
    stem: measure('svg:stemv'),
  }
  const [most] = [...own.looks].sort((a, b) => b.characters - a.characters)
  return {
    family: own.family,
    generic: stated('style:font-family-generic'),
    pitch: stated('style:font-pitch'),
    panose: stated('svg:panose-1')
      .split(/\s+/)
      .filter(value => /^\d+$/.test(value))
      .map(Number),
    stated: Object.fromEntries(
      Object.entries(measures).filter((entry): entry is [string, number] => entry[1] !== null),
    ),
    weight: most?.weight ?? 400,
    italic: most?.italic ?? false,
  }
}
