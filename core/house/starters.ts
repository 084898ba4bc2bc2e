import { houseSchema, type House, type HouseColor } from './house'
import { houseFromPair } from './make-house'

/** A house to begin with. */
export interface Starter {
  readonly id: string
  readonly says: string
  readonly house: () => House
}

const palette = (text: string, quiet: string, accent: string, warning: string, ground: string): HouseColor[] => [
  { id: 'ink', title: 'Ink', does: 'text', color: text },
  { id: 'quiet', title: 'Quiet ink', does: 'quiet', color: quiet },
  { id: 'accent', title: 'Accent', does: 'accent', color: accent },
  { id: 'warning', title: 'Warning', does: 'warning', color: warning },
  { id: 'ground', title: 'Ground', does: 'ground', color: ground },
]

/** A house of a pair with headings and small type in colours of their own. */
function colored(house: House, more: Partial<House>): House {
  const colors: Readonly<Record<string, string>> = {
    display: 'accent',
    heading: 'accent',
    caption: 'quiet',
    label: 'quiet',
    note: 'quiet',
  }
  return houseSchema.parse({
    ...house,
    ...more,
    roles: house.roles.map(role => ({ ...role, text: { ...role.text, color: colors[role.id] ?? 'ink' } })),
  })
}

/** Houses that ship: each is a beginning, set in faces that every desk has. */
export const starters: readonly Starter[] = [
  {
    id: 'page',
    says: 'long reading in print: a quiet serif, headings in a sans, wide leading',
    house: () =>
      colored(
        houseFromPair(
          'Quiet page',
          { heading: 'Work Sans', body: 'Literata', size: 10, ratio: 1.25 },
          palette('#1b1b1b', '#5a5a5a', '#2c4a63', '#9c2f1b', '#fffdf8'),
        ),
        { limits: { smallest: { text: 8, deck: 18 }, families: 3, contrast: 4.5, measure: { least: 45, most: 75 } } },
      ),
  },
  {
    id: 'talk',
    says: 'decks for a room: one sans throughout, large steps, few words',
    house: () =>
      colored(
        houseFromPair(
          'Plain talk',
          { heading: 'Jost', body: 'Jost', size: 11, ratio: 4 / 3 },
          palette('#14202b', '#4d5a66', '#006a6a', '#a8321c', '#ffffff'),
        ),
        {
          limits: { smallest: { text: 9, deck: 20 }, families: 2, contrast: 7, deepestLevel: 3, wordsPerSlide: 40 },
          room: { screenHeight: 2, lastRow: 12 },
        },
      ),
  },
  {
    id: 'notice',
    says: 'notices and cards: a sturdy serif over a plain sans, small sizes kept legible',
    house: () =>
      colored(
        houseFromPair(
          'Notice board',
          { heading: 'Spectral', body: 'Work Sans', size: 9.5, ratio: 1.2 },
          palette('#202020', '#595959', '#6a3d1f', '#b3261e', '#fbfaf7'),
        ),
        { limits: { smallest: { text: 8, sheet: 8 }, families: 2, contrast: 4.5 } },
      ),
  },
]
