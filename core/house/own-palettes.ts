import { shownAt } from '../colour/oklch'
import type { HouseColor } from './house'
import type { Palette } from './palette'

/** A palette that ships, with words by which it is found. */
export interface OwnPalette {
  readonly name: string
  readonly says: string
  readonly palette: Palette
}

/** A palette around one hue: text and quiet text of it, an accent, a warning, a ground, and series around the circle. */
function around(hue: number, accentChroma: number, groundLightness: number, warning: number, turn: number): Palette {
  const at = (lightness: number, chroma: number, own: number) => shownAt({ lightness, chroma, hue: own }).color
  const dark = groundLightness < 0.5
  const colors: HouseColor[] = [
    { id: 'ground', title: 'Ground', does: 'ground', color: at(groundLightness, dark ? 0.02 : 0.008, hue) },
    { id: 'text', title: 'Text', does: 'text', color: at(dark ? 0.95 : 0.24, 0.02, hue) },
    { id: 'quiet', title: 'Quiet text', does: 'quiet', color: at(dark ? 0.78 : 0.48, 0.025, hue) },
    { id: 'accent', title: 'Accent', does: 'accent', color: at(dark ? 0.78 : 0.48, accentChroma, hue) },
    { id: 'warning', title: 'Warning', does: 'warning', color: at(dark ? 0.75 : 0.5, 0.16, warning) },
    ...Array.from({ length: 4 }, (_, index): HouseColor => ({
      id: `series-${index + 1}`,
      title: `Series ${index + 1}`,
      does: 'series',
      // Lightness goes up with the hue: series are told apart without their colour, too.
      color: at(0.42 + index * 0.12, accentChroma, hue + index * turn),
    })),
  ]
  return { colors }
}

/** Palettes of the desk's own. */
export const ownPalettes: readonly OwnPalette[] = [
  { name: 'Tide pool', says: 'cool, quiet, green', palette: around(190, 0.08, 0.985, 30, 70) },
  { name: 'Slate roof', says: 'cool, grey, sober', palette: around(255, 0.05, 0.98, 35, 55) },
  { name: 'Harbour dusk', says: 'dark, blue, for screens', palette: around(265, 0.11, 0.22, 40, 60) },
  { name: 'Peat fire', says: 'warm, brown, earthy', palette: around(55, 0.09, 0.975, 25, 80) },
  { name: 'Sea thrift', says: 'warm, pink, bright', palette: around(350, 0.13, 0.985, 40, 75) },
  { name: 'Lichen', says: 'green, yellow, soft', palette: around(115, 0.09, 0.98, 30, 65) },
  { name: 'Lantern week', says: 'dark, amber, warm', palette: around(75, 0.11, 0.2, 30, 85) },
  { name: 'Bell buoy', says: 'red, strong, signal', palette: around(28, 0.17, 0.985, 75, 90) },
  { name: 'First frost', says: 'pale, cool, light', palette: around(220, 0.06, 0.99, 25, 50) },
  { name: 'Kelp', says: 'dark, green, deep', palette: around(160, 0.09, 0.23, 45, 70) },
  { name: 'Heather', says: 'purple, soft, quiet', palette: around(315, 0.1, 0.98, 35, 65) },
  { name: 'Chart paper', says: 'neutral, warm, for print', palette: around(90, 0.04, 0.97, 30, 90) },
]
