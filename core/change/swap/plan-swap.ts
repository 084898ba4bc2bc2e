import { slots } from '../../document/font-attributes'
import { fontReferences } from '../../document/font-references'
import { sameFamily } from '../../document/font-family'
import type { Operation } from '../../document/operations'
import { faceKey, voiceOf } from '../../census/voices'
import { countLines } from '../effects'
import type { Numbered } from '../kind'
import { type Told, NothingToPlan, PlanError, type FaceMapping } from '../plan'
import { setLocally } from '../local-look'
import type { Planner } from '../planner'
import { declarationRows, declarationsByPart } from './declarations'
import { faceOperations, missingGlyphs } from './face-changes'
import { mapFaces } from './mapping'
import { comparedIn, limited, sizeFactor, type SizeFactors } from './optical-size'
import { changeOperations, familyRows } from './references'
import { isKept, looksFor, pinKept, shownFace, sparedLooks, swapGroups, swapWithin, withinMatches } from './swap-within'
import { setSizes, type LocalSize } from './swap-sizes'
import { scriptOfMost, textUses, type TextUse } from './uses'
import { swapTitle, wishFor, type SwapWish } from './wish'

/** @throws PlanError where a wish asks for what is not there */
function check(planner: Planner, wishes: readonly SwapWish[]): void {
  const references = fontReferences(planner.document)
  for (const { from, to } of wishes) {
    const known = references.some(reference => reference.families.some(family => sameFamily(family, from.family)))
    if (!known)
      throw new NothingToPlan(
        `“${from.family}” is not named anywhere in this document, so there is nothing to swap. Nothing was changed.`,
      )
    if (
      from.style !== undefined &&
      !planner.session.detail.census.faces.some(
        face => sameFamily(face.family, from.family) && sameFamily(face.style, from.style!),
      )
    )
      throw new PlanError(`No text of this document is set in ${from.family} ${from.style}. Nothing was changed.`)
    if (sameFamily(from.family, to.family) && from.style === to.style)
      throw new PlanError(`${from.family} would give way to itself. Nothing was changed.`)
  }
}

/** What the stages of a swap share. */
interface Stage {
  readonly planner: Planner
  readonly wishes: readonly Numbered<SwapWish>[]
  /** Wishes that go everywhere. */
  readonly everywhere: readonly SwapWish[]
  readonly uses: readonly TextUse[]
  /** Text that a wish takes, and what of it keeps the old font by its group. */
  readonly going: readonly TextUse[]
  readonly kept: readonly TextUse[]
  readonly spared: readonly { readonly part: string; readonly node: number }[]
}

/**
 * Carries swaps out that act at once: every place that names the old fonts, in styles of all kinds, defaults, masters,
 * lists, charts, formulas and declarations, in all three slots. A wish within limits changes only the text it is about.
 * Each looks at the document as it was. @throws PlanError when a wish cannot be met at all
 */
export function planSwaps(planner: Planner, wishes: readonly Numbered<SwapWish>[]): Told {
  const all = wishes.map(({ wish }) => wish)
  check(planner, all)
  const everywhere = all.filter(wish => wish.within === undefined)
  const uses = textUses(planner.reading)
  // Text that a wish within limits takes is no longer the other's.
  const going = uses.filter(use => wishFor(everywhere, use.asked) !== undefined)
  const spared = planner.leftKeys('paragraph').map(key => ({ part: String(key.part), node: Number(key.node) }))
  const kept = going.filter(use => isKept(planner, use))
  const stage: Stage = { planner, wishes, everywhere, uses, going, kept, spared }
  const { census } = planner.session.detail
  const named = exchangeNames(stage, mapFaces(census.faces, everywhere, planner.library))
  const set = setText(stage)
  planner.groups.push(...swapGroups(planner, going))
  planner.missingGlyphs.push(...missingGlyphs(planner.mappings, uses, planner.library))
  for (const picture of census.pictures) planner.note(picture, 'a picture: the fonts in it cannot be changed here')
  return {
    titles: [...new Set(all.map(swapTitle))],
    places: named.places + set.places,
    characters: named.characters + set.characters,
  }
}

interface Amount {
  readonly places: number
  readonly characters: number
}

/** Exchanges the names of fonts, and what goes with them: the first stage. */
function exchangeNames({ planner, everywhere, uses, kept, spared }: Stage, mappings: readonly FaceMapping[]): Amount {
  const { document, library } = planner
  const references = fontReferences(document)
  const whole = everywhere.filter(wish => wish.from.style === undefined)
  const keepsText = kept.length + spared.length > 0
  const operations = new Map<string, Operation[]>()
  const push = (part: string, ...list: Operation[]) => {
    operations.set(part, [...(operations.get(part) ?? []), ...list])
  }
  const changes = familyRows(planner, references, whole, uses, kept)
  const changed = new Set(changes.map(change => change.reference))
  const stays = new Set(references.filter(reference => !changed.has(reference)))
  const declarationsGo = declarationRows(planner, references, whole)
  const declarations = declarationsByPart(document, references, stays, keepsText || !declarationsGo ? [] : whole)
  for (const change of changes)
    for (const operation of changeOperations(document, change, declarations, library))
      push(change.reference.part, operation)
  const keeps = new Set(kept)
  const faces = faceOperations(
    planner,
    mappings,
    uses.filter(use => !keeps.has(use)),
    uses,
    everywhere,
    declarations,
  )
  for (const [part, list] of faces.operations) push(part, ...list)
  const dropped = new Set<string>()
  for (const [part, own] of declarations) {
    push(part, ...own.finish())
    for (const file of own.droppedFiles) if (document.container.byPath.has(file)) dropped.add(file)
  }
  for (const list of operations.values()) for (const operation of list) planner.change.do(operation)
  for (const path of dropped) planner.change.do({ type: 'drop-part', path })
  planner.forgetAutomatic()
  planner.mappings.push(...mappings)
  const characters = (list: readonly { readonly characters: number }[]) =>
    list.reduce((sum, each) => sum + each.characters, 0)
  const places = changes.length + faces.count
  // Where all of it is left out, no text changes.
  return { places, characters: places === 0 ? 0 : characters(mappings) - characters(kept) }
}

const changesSize = ({ size, leading }: SwapWish): boolean =>
  (size !== undefined && size.mode !== 'keep') || (leading ?? 'as-is') !== 'as-is'

/** Halvings until a size is found: a fraction of a percent of what the limits leave. */
const lineRounds = 6

/**
 * The size that keeps the lines of a wish: found by halving between the wish's limits, on the pages that come of it.
 * The largest size that was tried and needs no more lines than before is taken.
 */
function lineFactor({ planner, wishes }: Stage, wish: SwapWish): number {
  const before = countLines(planner.session.composition)
  const trial = (factor: number) =>
    planner.tryPlan(
      wishes.map(each =>
        each.wish === wish
          ? { ...wish, size: { ...wish.size!, mode: 'percent' as const, percent: factor * 100 } }
          : each.wish.size?.mode === 'lines'
            ? { ...each.wish, size: undefined }
            : each.wish,
      ),
    )
  let [low, high] = [wish.size!.least / 100, wish.size!.most / 100]
  let best = low
  for (let round = 0; round < lineRounds; round++) {
    const middle = Math.round((low + high) * 500) / 1000
    if (countLines(trial(middle).composition) <= before) {
      best = middle
      low = middle
    } else high = middle
  }
  return best
}

/** By how much the sizes of a wish change in each slot, since faces compare by the letters of its script; it is told. */
function factorsOf(stage: Stage, numbered: Numbered<SwapWish>, affected: readonly TextUse[]): SizeFactors {
  const { planner } = stage
  const { wish, index } = numbered
  const { size } = wish
  const factors = { western: 1, asian: 1, complex: 1 }
  if (!size || size.mode === 'keep') return factors
  const keepsLines = size.mode === 'lines' && shownFace(planner.library, affected) ? lineFactor(stage, wish) : null
  for (const slot of slots) {
    const own = affected.filter(use => use.slot === slot)
    const measured = ownFactor(stage, wish, own)
    if (measured === null) continue
    factors[slot] = limited(size, keepsLines ?? measured.factor)
    const change = { wish: index, percent: Math.round(factors[slot] * 1000) / 10, said: measured.said }
    if (!planner.sizes.some(each => each.wish === index && each.said === change.said)) planner.sizes.push(change)
  }
  return factors
}

/** The same of text of one slot, measured on the face that shows most of it; null where there is none. */
function ownFactor({ planner }: Stage, wish: SwapWish, own: readonly TextUse[]) {
  const { library } = planner
  const shown = shownFace(library, own)
  if (!shown) return null
  const asked = new Set(own.map(use => use.face))
  const [most] = mapFaces(
    planner.session.detail.census.faces.filter(face => asked.has(face.key)),
    [wish],
    library,
  ).sort((a, b) => b.characters - a.characters)
  const to = library.byHash(most?.to.hash ?? '') ?? library.family(wish.to.family)[0]!
  const from = library.byHash(shown.hash)!
  const script = scriptOfMost(own)
  const by = comparedIn(from, to, script)
  const on = shown.absent
    ? `measured on ${from.fullName}, which stands in for ${wish.from.family}`
    : `measured on ${from.fullName} and ${to.fullName}`
  return {
    factor: sizeFactor(wish.size!, from, to, script),
    said:
      by === null ? `${on}, which have no letters to compare` : by === 'Latin' ? on : `${on}, by their ${by} letters`,
  }
}

/** What goes beyond exchanging names: sizes, text that keeps its font, wishes within limits: the second stage. */
function setText(stage: Stage): Amount {
  const { planner, wishes, everywhere, uses, going, kept, spared } = stage
  const { reading } = planner
  const limits = wishes.filter(({ wish }) => wish.within !== undefined)
  const sized = wishes.filter(({ wish }) => wish.within === undefined && changesSize(wish))
  if (limits.length + sized.length + kept.length + spared.length === 0) return { places: 0, characters: 0 }
  const own = planner.rows.length
  const pinned = looksFor(reading, pinKept(planner, uses, kept), (style, slot) => ({
    family: style.effective.slots[slot].font.family,
  }))
  const keeps = new Set(kept)
  const sizeLocals: LocalSize[] = []
  for (const numbered of sized) {
    const { wish } = numbered
    const affected = going.filter(use => !keeps.has(use) && wishFor(everywhere, use.asked) === wish)
    if (affected.length === 0) continue
    const factors = factorsOf(stage, numbered, affected)
    if (wish.size && wish.size.mode !== 'keep') sizeLocals.push(...setSizes(planner, wish, factors, affected, uses))
    else if (wish.leading === 'stay')
      sizeLocals.push(...setSizes(planner, { ...wish, size: undefined }, factors, affected, uses))
  }
  setLocally(planner, [...pinned, ...looksFor(reading, sizeLocals, () => null)])
  let places = planner.rows
    .slice(own)
    .filter(row => row.included && (row.stage === 'size' || row.stage === 'leading'))
    .reduce((sum, row) => sum + row.count, 0)
  let characters = 0
  for (const numbered of limits) {
    const result = setWithin(stage, numbered)
    places += result.places
    characters += result.characters
  }
  setLocally(
    planner,
    sparedLooks(
      reading,
      spared,
      wishes.map(({ wish }) => wish.from.family),
    ),
  )
  if (spared.length > 0) planner.note(`${spared.length} paragraphs`, 'spared by hand: they keep the old font')
  return { places, characters }
}

/** Carries out a wish within limits. */
function setWithin(stage: Stage, numbered: Numbered<SwapWish>): Amount {
  const { planner, uses } = stage
  const { wish } = numbered
  const matches = withinMatches(planner, wish)
  if (matches.length === 0) {
    planner.note(`${wish.from.family} within limits`, 'no text answers to them')
    return { places: 0, characters: 0 }
  }
  const faces = new Map<string, number>()
  for (const match of matches)
    for (const piece of match.pieces) {
      const key = faceKey(voiceOf(piece.style, piece.slot))
      const length = [...match.text.slice(piece.from - match.from, piece.to - match.from)].length
      faces.set(key, (faces.get(key) ?? 0) + length)
    }
  const mappings = mapFaces(
    planner.session.detail.census.faces
      .filter(face => faces.has(face.key))
      .map(face => ({ ...face, characters: faces.get(face.key)! })),
    [wish],
    planner.library,
  )
  planner.mappings.push(...mappings)
  const about = new Set(matches.flatMap(match => match.pieces.map(piece => piece.style)))
  const factors = factorsOf(
    stage,
    numbered,
    uses.filter(use => about.has(use.style)),
  )
  return swapWithin(planner, numbered, matches, mappings, uses, factors)
}
