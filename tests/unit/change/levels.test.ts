import { describe, expect, it } from 'vitest'
import { listLevels } from '../../../core/change/levels/level-list'
import { NothingToPlan } from '../../../core/change/plan'
import { registry } from '../../../core/change/registry'
import { applyAll } from '../../../core/document/apply'
import { saveDocument } from '../../../core/document/open'
import { paragraphsOf } from '../../../core/document/stories'
import type { DocumentSession } from '../../../core/session'
import { paragraphRuns } from '../../../core/style/runs'
import { seasonReview } from '../../../demo/season-review'
import { session, sessionOf } from '../../support/fixtures'
import { quickly, request } from '../../support/planning'

/** Looks of all text by what holds it: placeholders, and everything else. */
function looks(of: DocumentSession) {
  const placed: string[] = []
  const loose: string[] = []
  for (const story of of.reading.stories)
    for (const paragraph of paragraphsOf(story.blocks)) {
      const { text } = of.reading.cascade.paragraph(paragraph, story.role)
      const inPlaceholder = text.effective.layers.some(layer => layer.style.family === 'presentation')
      for (const run of paragraphRuns(paragraph, of.reading.cascade, story.role).runs) {
        const { font, size } = run.style.effective.slots[run.slot]
        ;(inPlaceholder ? placed : loose).push(`${font.family} ${size}`)
      }
    }
  return { placed, loose }
}
const levels = [
  { placeholder: 'title', setting: { family: 'Literata', size: 36, weight: 600 } },
  {
    placeholder: 'outline',
    level: 1,
    setting: { family: 'Work Sans', size: 22, leading: { value: 120, unit: 'own' }, after: 4 },
  },
  { placeholder: 'outline', level: 2, setting: { size: 19 } },
  { placeholder: 'outline', level: 3, setting: { size: 16, italic: true } },
]

describe('the levels of a deck', () => {
  it('are asked of decks alone', () => {
    const { applies } = registry.kinds.find(kind => kind.type === 'levels')!
    const [wish] = request([{ type: 'levels', levels }]).wishes
    expect(applies!(session(seasonReview()).document, wish!)).toBe(true)
    expect(applies!(sessionOf({}).document, wish!)).toBe(false)
  })

  it('are listed as they are set, each by its master, placeholder and level', () => {
    const list = listLevels(session(seasonReview()).reading)
    expect(list.map(each => `${each.placeholder} ${each.level}`).slice(0, 5)).toEqual([
      'title 1',
      'subtitle 1',
      'outline 1',
      'outline 2',
      'outline 3',
    ])
    expect(list[2]).toMatchObject({ master: 'Saltmere', family: 'Spectral', size: 20, weight: 400, italic: false })
  })

  it('are set in one go: all slides follow, loose frames do not, and undoing gives the bytes', () => {
    const bytes = seasonReview()
    const before = session(bytes)
    const { plan, after } = quickly(before, { type: 'levels', levels })
    expect(plan.rows.map(row => row.title)).toEqual([
      'Title of Saltmere',
      'Level 1 of Saltmere',
      'Level 2 of Saltmere',
      'Level 3 of Saltmere',
    ])
    const now = listLevels(after.reading)
    expect(now.slice(2, 5).map(each => [each.family, each.size])).toEqual([
      ['Work Sans', 22],
      ['Spectral', 19],
      ['Spectral', 16],
    ])
    expect(now[2]).toMatchObject({ leading: { value: 120, unit: 'own' }, after: 4 })
    expect(now[4]!.italic).toBe(true)
    const [was, is] = [looks(before), looks(after)]
    expect(is.loose).toEqual(was.loose)
    expect(is.placed.filter(each => each.startsWith('Work Sans')).length).toBeGreaterThan(3)
    const applied = applyAll(before.document, plan.operations)
    expect(saveDocument(applyAll(applied.document, applied.inverse).document)).toEqual(bytes)
  })

  it('leave what is left out, and say where there are none', () => {
    const { plan } = quickly(session(seasonReview()), {
      type: 'levels',
      master: 'Saltmere',
      levels: levels.slice(0, 1),
    })
    expect(plan.rows).toHaveLength(1)
    expect(() => quickly(session(seasonReview()), { type: 'levels', master: 'Nobody', levels })).toThrow(NothingToPlan)
    expect(() => quickly(sessionOf({}), { type: 'levels', levels })).toThrow(NothingToPlan)
  })
})
