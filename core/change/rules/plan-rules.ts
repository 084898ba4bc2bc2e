import { addStyle, dropStyle, replaceStyleValues, setStyleHead } from '../../document/style-verbs'
import { fontAttributes, slots } from '../../document/font-attributes'
import { openParagraph } from '../../document/paragraph-spots'
import type { LeadInRule, PatternRule } from '../../document/rules'
import { withParents } from '../../document/styles'
import { checkPattern, PatternError } from '../../style/rule-matching'
import { slotAttributes } from '../../style/properties'
import { PlanError } from '../plan'
import type { Planner } from '../planner'
import { hasRules, isRuleStyle, refreshParagraph, ruleStyleName, rulesFor } from './rule-spans'

/** Where the first line of a paragraph ends, in its text; null where that is not known. */
export type LineEnds = (part: string, node: number) => number | null

/** Whether a rule takes what stands in a first line: that is known only from the pages. */
export const takesLine = (rule: LeadInRule): boolean => rule.what.kind === 'first-line'

/**
 * Gives a paragraph style its rules in place of those it has.
 * @throws PlanError where a pattern cannot be run or a style is missing
 */
export function setRules(
  planner: Planner,
  style: string,
  patterns: readonly PatternRule[],
  leadIns: readonly LeadInRule[],
): void {
  const target = planner.style('paragraph', style)
  const rules = planner.currentRules
  const others = {
    patterns: rules.patterns.filter(rule => rule.style !== style),
    leadIns: rules.leadIns.filter(rule => rule.style !== style),
  }
  const ids = new Set([...others.patterns, ...others.leadIns].map(rule => rule.id))
  for (const rule of [...patterns, ...leadIns]) {
    if (rule.style !== style || ids.has(rule.id))
      throw new PlanError('Two rules would have the same number. Nothing was changed.')
    ids.add(rule.id)
    planner.style('text', rule.character)
    try {
      if ('pattern' in rule) checkPattern(rule.pattern)
      else if (rule.what.kind === 'pattern') checkPattern(rule.what.pattern)
    } catch (error) {
      if (error instanceof PatternError) throw new PlanError(`“${rule.title}”: ${error.message} Nothing was changed.`)
      throw error
    }
  }
  planner.rules = { ...rules, patterns: [...others.patterns, ...patterns], leadIns: [...others.leadIns, ...leadIns] }
  const before = rules.patterns.length + rules.leadIns.length - others.patterns.length - others.leadIns.length
  const count = patterns.length + leadIns.length
  planner.row({
    key: { what: 'rules', style },
    stage: 'rule',
    title: `Rules of ${target.displayName}`,
    before: before === 0 ? 'no rules' : `${before} ${before === 1 ? 'rule' : 'rules'}`,
    after: [...patterns, ...leadIns].map(rule => rule.title || rule.id).join(', ') || 'no rules',
    places: [{ part: target.part, node: target.node }],
  })
  if (count > 0 && rulesFor(planner.rules, planner.scope, style).patterns.some(rule => !rule.on))
    planner.note('rules that are off', 'they take nothing until they are switched on')
}

/** The values of a character style for all three slots: what one slot lacks, it takes from another that has it. */
function forAllSlots(planner: Planner, character: string): Record<string, string> {
  const style = planner.style('text', character)
  const text: Record<string, string> = {}
  for (const each of withParents(planner.scope, style)) Object.assign(text, each.text)
  const values: Record<string, string> = {}
  const spread = (names: readonly string[]) => {
    const said = names.find(name => text[name] !== undefined)
    if (said !== undefined) for (const name of names) values[name] = text[name] ?? text[said]!
  }
  // A family goes with all that names it: a slot without a font of its own takes the whole compound of one that has.
  const named = slots.find(
    slot => text[fontAttributes[slot].name] !== undefined || text[fontAttributes[slot].family] !== undefined,
  )
  if (named) {
    for (const slot of slots) {
      const own =
        text[fontAttributes[slot].name] !== undefined || text[fontAttributes[slot].family] !== undefined ? slot : named
      for (const part of Object.keys(fontAttributes[slot]) as (keyof typeof fontAttributes.western)[]) {
        const value = text[fontAttributes[own][part]]
        if (value !== undefined) values[fontAttributes[slot][part]] = value
      }
    }
  }
  for (const key of ['size', 'weight', 'style', 'language', 'country'] as const)
    spread(slots.map(slot => slotAttributes[slot][key]))
  return values
}

/**
 * Brings styles and spans of all rules to what the rules say: after rules, styles or texts have changed. Spans of rules
 * that are gone go, and their styles.
 */
export function syncRules(planner: Planner, lineEnds: LineEnds): void {
  const rules = planner.currentRules
  const ruleStyles = [...planner.scope.common.values()].filter(
    style => style.family === 'text' && isRuleStyle(style.name),
  )
  if (!hasRules(rules) && ruleStyles.length === 0) return
  const all = [...rules.patterns, ...rules.leadIns]
  const draft = planner.common
  for (const rule of all) {
    const name = ruleStyleName(rule.id)
    const text = forAllSlots(planner, rule.character)
    const displayName = `Rule: ${rule.title || rule.id}`
    const known = ruleStyles.find(style => style.name === name)
    if (!known) {
      addStyle(planner.common, 'text', { name, displayName }, { parent: rule.character, text })
      continue
    }
    setStyleHead(draft, known.node, { displayName, parent: rule.character })
    replaceStyleValues(draft, known.node, 'text', text)
  }
  planner.reread()
  let changed = 0
  let taken = 0
  const places: { part: string; node: number }[] = []
  for (const { paragraph } of planner.paragraphs()) {
    const scope = planner.reading.cascade.scope(paragraph.part)
    if (
      refreshParagraph(
        planner.change.on(paragraph.part),
        scope,
        rules,
        paragraph.node,
        lineEnds(paragraph.part, paragraph.node),
      )
    ) {
      changed++
      taken += openParagraph(planner.change.part(paragraph.part), paragraph.node).text.length
      if (places.length < 500) places.push({ part: paragraph.part, node: paragraph.node })
    }
  }
  for (const style of ruleStyles) {
    if (all.some(rule => ruleStyleName(rule.id) === style.name)) continue
    dropStyle(draft, style.node)
  }
  if (changed > 0)
    planner.row({
      key: { what: 'spans of rules' },
      stage: 'rule',
      title: 'Paragraphs in which rules act anew',
      count: changed,
      characters: taken,
      before: 'spans of rules as they were',
      after: 'as the rules say',
      places,
    })
}
