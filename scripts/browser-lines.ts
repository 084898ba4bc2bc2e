/*
 * Lines as Chromium has them: paragraphs of nine languages, in the shipped faces and in measures of all widths, set here
 * and there. `npm run browser:lines [COUNT]`; tells for each language how many break alike, how far their widths are
 * apart, and where they are not.
 */
import { chromium } from '@playwright/test'
import {
  chromiumLines,
  ourLines,
  trialParagraphs,
  type TrialLine,
  type TrialParagraph,
} from '../tests/support/browser-lines'
import config from '../playwright.config'

const named = ({ language, face }: TrialParagraph) => `${language}, ${face.family}`
const paragraphs = trialParagraphs(Number(process.argv[2] ?? 200))
const browser = await chromium.launch(config.use?.launchOptions)
const theirs = await chromiumLines(await browser.newPage(), paragraphs)
await browser.close()

const tally = new Map<string, { count: number; alike: number; lines: number; wide: number; apart: number }>()
for (const [index, paragraph] of paragraphs.entries()) {
  const row = tally.get(paragraph.language) ?? { count: 0, alike: 0, lines: 0, wide: 0, apart: 0 }
  tally.set(paragraph.language, row)
  const [ours, other] = [ourLines(paragraph), theirs[index]!]
  row.count++
  row.lines += ours.length
  const first = ours.findIndex((line, at) => line.start !== other[at]?.start)
  if (first < 0 && ours.length === other.length) row.alike++
  else {
    const at = first < 0 ? ours.length : first
    const words = (line: TrialLine | undefined) => `“${paragraph.text.slice(line?.start, (line?.start ?? 0) + 12)}”`
    const before = [ours, other].map(lines => lines[at - 1]?.width.toFixed(2)).join(' and ')
    console.log(`${named(paragraph)}, ${paragraph.width} pt: line ${at + 1} begins here with ${words(ours[at])}, `)
    console.log(`  there with ${words(other[at])}; the line before is ${before} pt`)
  }
  for (let at = 0; at < (first < 0 ? Math.min(ours.length, other.length) : first - 1); at++) {
    const apart = Math.abs(ours[at]!.width - other[at]!.width)
    if (apart > 0.1) {
      row.wide++
      console.log(
        `${named(paragraph)}: a line is ${ours[at]!.width.toFixed(2)} pt wide here and ${other[at]!.width.toFixed(2)} there: ` +
          `“${paragraph.text.slice(ours[at]!.start, ours[at + 1]?.start)}”`,
      )
    }
    row.apart = Math.max(row.apart, apart)
  }
}
for (const [language, { count, alike, lines, wide, apart }] of tally) {
  const widths = `${wide} of ${lines} lines more than 0.1 pt apart, all within ${apart.toFixed(3)} pt`
  console.log(`${language}: ${alike} of ${count} paragraphs break alike, ${widths}`)
}
