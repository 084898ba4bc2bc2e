import { describe, expect, it } from 'vitest'
import { registry } from '../../../core/change/registry'
import { checks } from '../../../core/proof/registry'
import { checksWords } from '../../../core/house/checks'
import { asListed, checklistFor, checklistSchema, usualChecklist } from '../../../core/proof/checklist'
import { findingLimit, proofOf } from '../../../core/proof/proof'
import { countsOf } from '../../../core/proof/finding'
import { repairWishes } from '../../../core/proof/repairs'
import { galleyMenu } from '../../../demo/galley-menu'
import { harbourNotice } from '../../../demo/harbour-notice'
import { sailingGuide } from '../../../demo/sailing-guide'
import { seasonReview } from '../../../demo/season-review'
import { winterTariff } from '../../../demo/winter-tariff'
import { session } from '../../support/fixtures'
import { quickly, request } from '../../support/planning'
import { p, textOf } from './proofing'

const faulty = () => textOf(`${p('one<text:s/> "two"')}${p('')}${p('three - four')}`)

describe('a proof', () => {
  it('tells what it looks for, by which source, and what it cannot see, of every check once', () => {
    expect(new Set(checks.map(each => each.id)).size).toBe(checks.length)
    for (const each of checks) {
      for (const words of [each.title, each.looksFor, each.source, each.unseen]) expect(words.length).toBeGreaterThan(3)
      for (const limit of Object.values(each.limits ?? {})) {
        expect(limit.usual).toBeGreaterThanOrEqual(limit.least)
        expect(limit.usual).toBeLessThanOrEqual(limit.most)
      }
    }
  })

  it('tells each place with its page, its words and how much it matters', () => {
    const { findings, more } = proofOf(faulty())
    expect(findings.filter(each => each.group === 'words').map(each => [each.check, each.text, each.page])).toEqual([
      ['straight-quote', '"', 0],
      ['straight-quote', '"', 0],
      ['hyphen-for-dash', ' - ', 0],
      ['spare-space', ' ', 0],
      ['empty-paragraph', '', 0],
    ])
    expect(findings.map(each => each.id)).toEqual(findings.map((_, at) => at))
    expect(more).toEqual([])
    expect(countsOf(findings).warning).toBeGreaterThanOrEqual(5)
  })

  it('goes by the list of the house where that has one, else by that of the desk', () => {
    const desk = checklistSchema.parse({ name: 'Desk', checks: { runt: { runs: false } } })
    const house = { name: 'Quay', checks: checklistSchema.parse({ checks: { widow: { runs: false } } }).checks }
    expect(checklistFor(house, desk)).toEqual({ name: 'Quay', checks: { widow: { runs: false, limits: {} } } })
    expect([checklistFor({ name: 'Quay' }, desk), checklistFor(null, desk)]).toEqual([desk, desk])
    expect(checklistFor(null)).toEqual(usualChecklist)
    // A house that lists nothing says that all is as usual.
    expect(checklistFor({ name: 'Quay', checks: {} }, desk).checks).toEqual({})
  })

  it('says in words how far a list is from the usual', () => {
    const words = (checks: object) => checksWords(checklistSchema.parse({ checks }).checks)
    const off = { runs: false, severity: 'error', limits: { degrees: 1 } }
    expect(words({})).toBe('')
    expect(words({ a: off, b: off })).toBe('2 do not run')
    expect(words({ a: off, b: { severity: 'note' }, c: { severity: 'error', limits: { least: 3 } } })).toBe(
      '1 does not run, 2 matter otherwise, 1 goes by other limits',
    )
  })

  it('runs the checks of its list alone, as much as they matter there, by its limits', () => {
    const checklist = checklistSchema.parse({
      checks: {
        'straight-quote': { runs: false },
        'spare-space': { severity: 'error' },
        'small-type': { limits: { degrees: 400 } },
      },
    })
    const { findings } = proofOf(faulty(), { checklist })
    expect(findings.some(each => each.check === 'straight-quote')).toBe(false)
    expect(findings.find(each => each.check === 'spare-space')!.severity).toBe('error')
    expect(findings.some(each => each.check === 'small-type')).toBe(true)
    const limited = checks.find(each => each.id === 'small-type')!
    expect(
      asListed(limited, checklistSchema.parse({ checks: { 'small-type': { limits: { degrees: 9_999 } } } })),
    ).toEqual({
      severity: 'warning',
      limits: { letters: 3, degrees: 1000 },
    })
    expect(() => checklistSchema.parse({ checks: { a: { severity: 'fatal' } } })).toThrow()
  })

  it('tells what is wrong in a generated index, which is put right where it comes from', () => {
    const index =
      '<text:table-of-content text:name="t"><text:table-of-content-source/><text:index-body>' +
      `${p('The "old" quay')}</text:index-body></text:table-of-content>`
    const found = proofOf(textOf(index + p('The "new" quay'))).findings.filter(each => each.check === 'straight-quote')
    expect(found.map(each => each.repair !== null)).toEqual([false, false, true, true])
  })

  it('stops telling at a limit, and says how many more there are', () => {
    const of = textOf(p('"'.repeat(findingLimit + 7)))
    const { findings, more } = proofOf(of)
    expect(findings.filter(each => each.check === 'straight-quote').length).toBe(findingLimit)
    expect(more).toEqual([{ check: 'straight-quote', count: 7 }])
  })

  it('knows what was accepted until its place changes', () => {
    const of = faulty()
    const dash = proofOf(of).findings.find(each => each.check === 'hyphen-for-dash')!
    const accepted = quickly(of, { type: 'accept', findings: [dash.key], reason: 'The old way of the line' }).after
    const again = proofOf(accepted).findings
    expect(again.find(each => each.check === 'hyphen-for-dash')!.accepted).toBe('The old way of the line')
    expect(again.filter(each => each.accepted !== null).length).toBe(1)
    expect(countsOf(again).warning).toBe(countsOf(proofOf(of).findings).warning - 1)
    const { part, node, start } = dash.place!
    const changed = quickly(accepted, {
      type: 'mend',
      places: [{ kind: 'words', part, node, from: start - 5, to: start, before: 'three', after: 'seven' }],
    }).after
    expect(proofOf(changed).findings.find(each => each.check === 'hyphen-for-dash')!.accepted).toBeNull()
  })
})

const documents = { sailingGuide, seasonReview, galleyMenu, harbourNotice, winterTariff }

describe.each(Object.entries(documents))('everything of %s that can be put right', (_, make) => {
  it('is put right by one plan, and after a second one none of it is left', () => {
    let of = session(make())
    for (let round = 0; round < 3; round++) {
      const mendable = proofOf(of).findings.filter(each => each.repair !== null)
      if (mendable.length === 0) break
      const wishes = repairWishes(mendable, of, registry)
      of = registry.plan(of, request(wishes), { effects: false }).after
    }
    expect(
      proofOf(of)
        .findings.filter(each => each.repair !== null)
        .map(each => `${each.check}: ${each.says}`),
    ).toEqual([])
  })
})
