import type { Check, CheckDescription } from './check'
import { absentFaces } from './checks/absent-faces'
import { alikeRoles } from './checks/alike-roles'
import { colourAlone } from './checks/colour-alone'
import { contrast } from './checks/contrast'
import { decorativeBody } from './checks/decorative-body'
import { emptyParagraphs } from './checks/empty-paragraphs'
import { emptySpace } from './checks/empty-space'
import { figures } from './checks/figures'
import { foreignQuotes } from './checks/foreign-quotes'
import { formattedHeadings } from './checks/formatted-headings'
import { headingLevels } from './checks/heading-levels'
import { hyphensForDashes } from './checks/hyphens-for-dashes'
import { languageTag } from './checks/language-tag'
import { layoutSpaces } from './checks/layout-spaces'
import { looseLines } from './checks/loose-lines'
import { madeSmallCapitals } from './checks/made-small-capitals'
import { manyFamilies } from './checks/many-families'
import { measure } from './checks/measure'
import { missingGlyphs } from './checks/missing-glyphs'
import { missingWeight } from './checks/missing-weight'
import { noBreakSpaces } from './checks/no-break-spaces'
import { outsideHouse } from './checks/outside-house'
import { overset } from './checks/overset'
import { rivers } from './checks/rivers'
import { runts } from './checks/runts'
import { slides } from './checks/slides'
import { smallType } from './checks/small-type'
import { spareSpaces } from './checks/spare-spaces'
import { stackedHyphens } from './checks/stacked-hyphens'
import { straightQuotes } from './checks/straight-quotes'
import { strandedHeadings } from './checks/stranded-headings'
import { strays } from './checks/strays'
import { styleNames } from './checks/style-names'
import { tightLeading } from './checks/tight-leading'
import { toStyle } from './checks/to-style'
import { tracking } from './checks/tracking'
import { twins } from './checks/twins'
import { typedCapitals } from './checks/typed-capitals'
import { underlined } from './checks/underlined'
import { unfitFace } from './checks/unfit-face'
import { unlicensed } from './checks/unlicensed'
import { unusedStyles } from './checks/unused-styles'
import { waitingDefaults } from './checks/waiting-defaults'
import { widows } from './checks/widows'

/** All checks, in the order in which a proof tells them. A new one is its file and its line here. */
export const checks: readonly Check[] = [
  absentFaces,
  unlicensed,
  missingGlyphs,
  waitingDefaults,
  missingWeight,
  outsideHouse,
  decorativeBody,
  unfitFace,
  manyFamilies,
  toStyle,
  strays,
  twins,
  headingLevels,
  formattedHeadings,
  alikeRoles,
  styleNames,
  unusedStyles,
  straightQuotes,
  foreignQuotes,
  hyphensForDashes,
  spareSpaces,
  layoutSpaces,
  emptyParagraphs,
  noBreakSpaces,
  languageTag,
  typedCapitals,
  underlined,
  overset,
  strandedHeadings,
  widows,
  runts,
  stackedHyphens,
  looseLines,
  rivers,
  measure,
  tightLeading,
  tracking,
  madeSmallCapitals,
  figures,
  emptySpace,
  contrast,
  smallType,
  colourAlone,
  slides,
]

/** What all checks are, for people. */
export const checkDescriptions = (): CheckDescription[] => checks.map(({ find: _, ...description }) => description)
