import type { LeadInRule, PatternRule } from '../../document/rules'
import { standingParagraphs } from '../../document/stories'
import { leadInOf, matchesOf, PatternError } from '../../style/rule-matching'
import { paragraphText } from '../../style/runs'
import { paragraphExtents, type Composition } from '../../typeset/compose'
import { rulesFor } from './rule-spans'

/** Where a rule would act, for showing it while it is being written. */
export interface RulePreview {
  readonly places: readonly {
    readonly part: string
    readonly node: number
    readonly from: number
    readonly to: number
    readonly text: string
  }[]
  readonly more: boolean
  readonly message: string
}

const shown = 5_000

/** The text that one rule takes in all paragraphs of its style. */
export function previewRule(composition: Composition, rule: PatternRule | LeadInRule): RulePreview {
  const { cascade } = composition.reading
  const places: { part: string; node: number; from: number; to: number; text: string }[] = []
  const extents = 'what' in rule && rule.what.kind === 'first-line' ? paragraphExtents(composition) : null
  try {
    for (const { paragraph } of standingParagraphs(composition.reading)) {
      const scope = cascade.scope(paragraph.part)
      const alone =
        'what' in rule
          ? { ...cascade.rules, patterns: [], leadIns: [rule] }
          : { ...cascade.rules, patterns: [rule], leadIns: [] }
      const own = rulesFor(alone, scope, paragraph.styleName)
      if (own.patterns.length + own.leadIns.length === 0) continue
      const text = paragraphText(paragraph)
      const lead =
        'what' in rule ? leadInOf(rule, text, extents?.get(paragraph.node)?.layout.lines[0]?.end ?? null) : null
      for (const { from, to } of 'what' in rule
        ? lead
          ? [lead]
          : []
        : matchesOf(rule.pattern, text, rule.ignoreCase)) {
        if (places.length >= shown) return { places, more: true, message: '' }
        places.push({ part: paragraph.part, node: paragraph.node, from, to, text: text.slice(from, to).slice(0, 80) })
      }
    }
  } catch (error) {
    if (error instanceof PatternError) return { places: [], more: false, message: error.message }
    throw error
  }
  return { places, more: false, message: '' }
}
