import { expect } from '@playwright/test'
import { chromiumLines, ourLines, trialParagraphs } from '../support/browser-lines'
import { test } from '../support/desk-browser'

test('lines break and are as wide as Chromium has them, in nine languages', async ({ page }) => {
  const paragraphs = trialParagraphs(36)
  const theirs = await chromiumLines(page, paragraphs)
  const different = paragraphs.flatMap((paragraph, index) => {
    const [ours, other] = [ourLines(paragraph), theirs[index]!]
    const same =
      ours.length === other.length &&
      ours.every((line, at) => line.start === other[at]!.start && Math.abs(line.width - other[at]!.width) < 0.1)
    return same ? [] : [{ of: `${paragraph.language}, ${paragraph.face.family}: ${paragraph.text}`, ours, other }]
  })
  expect(different).toEqual([])
})
