import { houseSchema, type House, type HouseColor, type Setting } from '../core/house/house'

/*
 * The houses of the demo: Saltmere Line, as the company writes the year round, and Saltmere Winter Service, for what is
 * printed and shown while the lamps are lit.
 */

const night: HouseColor = {
  id: 'night',
  title: 'Night',
  does: 'text',
  color: '#1b2430',
  ink: { process: [90, 72, 48, 62] },
}
const stone: HouseColor = {
  id: 'stone',
  title: 'Stone',
  does: 'quiet',
  color: '#5b6470',
  ink: { process: [62, 48, 40, 22] },
}
const sail: HouseColor = { id: 'sail', title: 'Sail', does: 'ground', color: '#fdfcf8' }

/** What all roles of a house have unless they say otherwise. */
const plain: Setting = { weight: 400, italic: false, tracking: 0, case: 'none' }
const percent = (value: number) => ({ value, unit: 'percent' as const })

export const saltmereLine: House = houseSchema.parse({
  name: 'Saltmere Line',
  note: 'How the line writes, the year round.',
  palette: [
    night,
    { id: 'sound', title: 'Sound', does: 'accent', color: '#1f6f6b', ink: { spot: 'Saltmere Green' } },
    { id: 'buoy', title: 'Buoy', does: 'warning', color: '#b4361e' },
    stone,
    sail,
  ],
  roles: [
    {
      id: 'display',
      title: 'Title',
      text: { ...plain, family: 'Newsreader', size: 28, leading: percent(112), color: 'sound' },
      deck: { size: 32 },
    },
    {
      id: 'heading',
      title: 'Heading',
      text: { ...plain, family: 'Jost', weight: 500, size: 18, leading: percent(120) },
      deck: { size: 26 },
    },
    {
      id: 'subheading',
      title: 'Subheading',
      text: { ...plain, family: 'Jost', weight: 500, size: 12, leading: percent(125), color: 'sound' },
      deck: { size: 20 },
    },
    {
      id: 'lead',
      title: 'Intro',
      text: { ...plain, family: 'Spectral', italic: true, size: 12, leading: percent(137) },
      deck: { size: 18 },
    },
    {
      id: 'body',
      title: 'Body',
      text: { ...plain, family: 'Spectral', size: 10, leading: percent(140) },
      deck: { size: 20, leading: percent(125) },
      levels: [{ size: 17 }, { size: 15 }],
    },
    {
      id: 'caption',
      title: 'Caption',
      text: { ...plain, family: 'Jost', size: 8, leading: percent(130), color: 'stone' },
      deck: { size: 13 },
    },
    { id: 'label', title: 'Label', text: { ...plain, family: 'Jost', size: 8.5, color: 'stone' }, deck: { size: 14 } },
    {
      id: 'data',
      title: 'Figures',
      text: { ...plain, family: 'Jost', size: 8.5, leading: percent(140) },
      deck: { size: 14 },
    },
    {
      id: 'note',
      title: 'Note',
      text: { ...plain, family: 'Spectral', size: 8, leading: percent(130) },
      deck: { size: 13 },
    },
  ],
  faces: ['Spectral', 'Jost', 'Newsreader'].map(family => ({ family, uses: ['print', 'PDF'] })),
  limits: {
    smallest: { text: 8, deck: 13, sheet: 8 },
    families: 3,
    contrast: 4.5,
    deepestLevel: 3,
    wordsPerSlide: 50,
    measure: { least: 45, most: 80 },
  },
  defaults: { body: 'body', title: 'display', note: 'note' },
  standIns: [{ family: 'Skerrow', script: 'any', to: 'Jost' }],
  room: { screenHeight: 1.6, lastRow: 9 },
})

export const winterService: House = houseSchema.parse({
  name: 'Saltmere Winter Service',
  note: 'For what is printed and shown between the first frost and the thaw.',
  palette: [
    night,
    { id: 'lantern', title: 'Lantern', does: 'accent', color: '#8a570c' },
    { id: 'flare', title: 'Flare', does: 'warning', color: '#a02c16' },
    stone,
    sail,
  ],
  roles: saltmereLine.roles.map(role => ({
    ...role,
    text: {
      ...role.text,
      ...(role.text.family === 'Jost' ? { family: 'Work Sans', weight: role.text.weight === 500 ? 600 : 400 } : {}),
      ...(role.text.family === 'Spectral' ? { family: 'Literata' } : {}),
      ...(role.text.color === 'sound' ? { color: 'lantern' } : {}),
      // Read by lamplight: everything a little larger.
      ...(role.text.size === undefined ? {} : { size: Math.round(role.text.size * 1.05 * 2) / 2 }),
    },
  })),
  faces: ['Literata', 'Work Sans', 'Newsreader'].map(family => ({ family, uses: ['print', 'PDF'] })),
  limits: { ...saltmereLine.limits, smallest: { text: 8.5, deck: 14, sheet: 8.5 } },
  defaults: saltmereLine.defaults,
})
