import { emptyHouse } from '../../house/house'
import { settingWords } from '../../house/setting-words'
import { describeValues } from '../../style/describe'
import { saySetting } from '../dress/say-setting'
import { oneByOne } from '../kind'
import { NothingToPlan } from '../plan'
import { counted } from '../words'
import { levelStyles } from './level-list'
import { levelsSchema, type LevelsWish } from './wish'

const titles = { title: 'Title', subtitle: 'Subtitle', outline: 'Level', notes: 'Notes' } as const

/** What stands in a placeholder, in words: “Level 2 of Saltmere”. */
const titleOf = (placeholder: keyof typeof titles, level: number, master: string): string =>
  `${titles[placeholder]}${placeholder === 'outline' ? ` ${level}` : ''} of ${master}`

export const levelsKind = oneByOne<LevelsWish>({
  type: 'levels',
  schema: levelsSchema,
  most: 20,
  act(planner, { master, levels }) {
    // Settings name no colours: the house that carries them has none.
    const house = emptyHouse('levels')
    let set = 0
    for (const each of levelStyles(planner.reading)) {
      if (master !== null && each.master !== master) continue
      const wanted = levels.find(level => level.placeholder === each.placeholder && level.level === each.level)
      if (!wanted) continue
      const { style } = each
      const included = planner.row({
        key: { what: 'placeholder', name: style.name },
        stage: 'style',
        optional: true,
        title: titleOf(each.placeholder, each.level, each.master),
        characters: planner.counts ? (planner.usersOf(style)?.characters ?? 0) : 0,
        before: describeValues(style.text, style.paragraph, planner.scope).join(', ') || 'as the level above',
        after: settingWords(house, wanted.setting),
        places: [{ part: style.part, node: style.node }],
      })
      if (!included) continue
      saySetting(planner, house, style.node, wanted.setting)
      set++
    }
    if (planner.rows.length === 0)
      throw new NothingToPlan('This document has no such placeholders: it is no deck, or its masters have other names.')
    return `Set ${counted(set, 'placeholder')} of the deck`
  },
  sentence: ({ master, levels }) =>
    `Set ${counted(levels.length, 'placeholder')} of ${master === null ? 'all masters' : master} anew.`,
  applies: document => document.kind === 'presentation',
})
