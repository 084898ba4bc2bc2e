/** How an operator of a formula is set. Spaces in ems of its size. */
export interface Operator {
  readonly before: number
  readonly after: number
  /** Grows with what stands beside it: fences. */
  readonly stretches: boolean
  /** Larger in formulas that stand alone; its limits stand above and below there. */
  readonly large: boolean
  /** A name of several letters: it stands apart from the term behind it. */
  readonly named: boolean
}

const thin = 3 / 18
const medium = 4 / 18
const thick = 5 / 18

const kinds: readonly (readonly [signs: string, operator: Operator])[] = [
  // Relations and arrows.
  [
    '= < > ≤ ≥ ≪ ≫ ≠ ≡ ≢ ≈ ≃ ≅ ∼ ≁ ∝ ≺ ≻ ⊂ ⊃ ⊆ ⊇ ∈ ∉ ∋ ∣ ∥ ⊥ ⊢ ⊨ := ≔ ≐',
    { before: thick, after: thick, stretches: false, large: false, named: false },
  ],
  ['→ ← ↔ ⇒ ⇐ ⇔ ↦ ↑ ↓ ⟶ ⟵ ⟹ ⟺', { before: thick, after: thick, stretches: false, large: false, named: false }],
  // Between two terms.
  [
    '+ - − ± ∓ × · ⋅ ∗ * ÷ ∘ ∙ ∩ ∪ ∧ ∨ ⊕ ⊗ ⊖ ∖ ⋆',
    { before: medium, after: medium, stretches: false, large: false, named: false },
  ],
  ['/ ∕', { before: thin / 3, after: thin / 3, stretches: false, large: false, named: false }],
  // Behind a term.
  [', ;', { before: 0, after: thin, stretches: false, large: false, named: false }],
  [':', { before: 0, after: thick, stretches: false, large: false, named: false }],
  ['! ′ ″ ‴', { before: 0, after: 0, stretches: false, large: false, named: false }],
  // Around terms.
  ['( ) [ ] { } | ‖ ⟨ ⟩ 〈 〉 ⌈ ⌉ ⌊ ⌋ ∣', { before: 0, after: 0, stretches: true, large: false, named: false }],
  // In front of a term.
  ['∑ ∏ ∐ ⋂ ⋃ ⨁ ⨂', { before: thin, after: thin, stretches: false, large: true, named: false }],
  ['∫ ∬ ∭ ∮', { before: thin, after: thin, stretches: false, large: true, named: false }],
  ['¬ ∀ ∃ ∄ ∂ ∇ √', { before: 0, after: thin / 3, stretches: false, large: false, named: false }],
]
const none: Operator = { before: 0, after: 0, stretches: false, large: false, named: false }
/** Names of functions: sin, log, lim. */
export const nameOf: Operator = { ...none, after: thin, named: true }
const operators = new Map(kinds.flatMap(([signs, operator]) => signs.split(' ').map(sign => [sign, operator] as const)))

/** Signs that nobody sees: Unicode’s application of functions, invisible times, separator and plus. */
export const isInvisible = (text: string): boolean => /^[\u2061-\u2064\u200b]+$/.test(text)

/** Signs that may stand in front of a term alone, where they have no space: the form “prefix” of MathML. */
const signsOfTerms = new Set(['+', '-', '−', '±', '∓', '*', '∗'])

/**
 * How an operator is set; `form` is where it stands among its neighbours. By the groups of the operator dictionary of MathML
 * Core: relations have 5/18 of an em on both sides, signs between terms 4/18, commas 3/18 behind.
 */
export function operatorOf(text: string, form: 'prefix' | 'infix' | 'postfix'): Operator {
  const found = operators.get(text)
  if (!found) return /\p{L}{2}/u.test(text) ? nameOf : none
  if (form === 'prefix' && signsOfTerms.has(text)) return none
  return form === 'infix' || found.large ? found : { ...found, before: 0 }
}

/** Operators whose limits stand beside them where a formula runs in a line of text. */
export const movesLimits = (text: string): boolean => /^(∑|∏|∐|⋂|⋃|⨁|⨂|lim|max|min|sup|inf)$/.test(text)
