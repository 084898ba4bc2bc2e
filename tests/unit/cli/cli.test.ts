import { spawnSync } from 'node:child_process'
import { existsSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import type { Census } from '../../../core/census/census'
import { sailingGuide } from '../../../demo/sailing-guide'
import { seasonReview } from '../../../demo/season-review'
import { projectFolder } from '../../../server/library/files'

const folder = mkdtempSync(join(tmpdir(), 'morphene-cli-'))
const guide = join(folder, 'guide.odt')
writeFileSync(guide, sailingGuide())
afterAll(() => { rmSync(folder, { recursive: true }) })
const run = (...words: string[]) => spawnSync(process.execPath, ['--import', 'tsx', 'cli/main.ts', ...words], { cwd: projectFolder(), encoding: 'utf8' })

describe('the command line', () => {
  it('takes the census as text and as JSON', () => {
    expect(run('census', guide).stdout).toMatch(/settled, [\d]+ characters, 24 pages/)
    const census = JSON.parse(run('census', guide, '--json').stdout) as Census
    expect(census.document).toMatchObject({ kind: 'text', title: 'Sailing guide', pages: 24 })
    const [first] = census.faces
    for (const key of ['family', 'style', 'slot', 'status', 'standIn', 'characters', 'styles', 'pages', 'places']) expect(first).toHaveProperty(key)
    for (const key of ['body', 'frame', 'table', 'header', 'note', 'chart', 'master', 'default', 'annotation']) expect(first!.places).toHaveProperty(key)
  })

  it('swaps into a new file and reports', () => {
    const out = join(folder, 'out.odt')
    const { status, stdout } = run('swap', guide, '--from', 'Skerrow', '--to', 'Work Sans', '--out', out, '--json')
    expect(status).toBe(0)
    const report = JSON.parse(stdout) as Record<string, unknown>
    expect(report).toMatchObject({ places: 7, pagesBefore: 24, pagesAfter: 24, missingGlyphs: [], left: [] })
    for (const key of ['items', 'overset', 'unlaid']) expect(report).toHaveProperty(key)
    expect(run('census', out).stdout).not.toContain('Skerrow')
  })

  it('takes decks and drawings as it takes texts, notes in the PDF where they are wanted', () => {
    const deck = join(folder, 'deck.odp')
    writeFileSync(deck, seasonReview())
    expect(run('census', deck).stdout).toMatch(/14 pages/)
    const swapped = join(folder, 'swapped.odp')
    expect(run('swap', deck, '--from', 'Skerrow', '--to', 'Jost', '--out', swapped).status).toBe(0)
    expect(run('census', swapped).stdout).not.toContain('Skerrow')
    const copied = join(folder, 'copied.odp')
    expect(run('copy', deck, copied).status).toBe(0)
    expect(Buffer.compare(readFileSync(copied), readFileSync(deck))).toBe(0)
    expect(run('pdf', deck, join(folder, 'deck.pdf'), '--notes').stdout).toContain('28 pages')
  })

  it('makes texts of Markdown, and says what it left', () => {
    const source = join(folder, 'tides.md')
    writeFileSync(source, '# Tides\n\nHigh at *noon*. ![x](a.png)\n')
    const out = join(folder, 'tides.odt')
    expect(run('text', source, out).stdout).toContain('left out or guessed: pictures')
    expect(run('census', out).stdout).toMatch(/^Tides: 100.0 % settled/)
    writeFileSync(join(folder, 'bad.txt'), '')
    const refused = run('text', join(folder, 'bad.txt'), join(folder, 'none.odt'))
    expect([refused.status === 0, refused.stderr.trim().split('\n').length, existsSync(join(folder, 'none.odt'))]).toEqual([false, 1, false])
  })

  it('writes the pages as PDF, with bleed and marks', () => {
    const out = join(folder, 'pages.pdf')
    const { status, stdout } = run('pdf', guide, out, '--bleed', '3mm', '--marks')
    expect(status).toBe(0)
    expect(stdout).toContain('24 pages')
    expect(stdout).not.toContain('empty box')
    expect(spawnSync('qpdf', ['--check', out]).status).toBe(0)
  })

  it('copies unchanged', () => {
    const out = join(folder, 'copy.odt')
    expect(run('copy', guide, out).status).toBe(0)
    expect(readFileSync(out)).toEqual(readFileSync(guide))
  })

  it.each([
    ['no such file', ['census', 'nowhere.odt']], ['no such command', ['polish', guide]], ['no such option', ['census', guide, '--loud']], ['a wish without an end', ['swap', guide, '--from', 'Skerrow']],
    ['an unknown family', ['swap', guide, '--from', 'Skerrow', '--to', 'Nowhere', '--out', join(folder, 'never.odt')]], ['a file that is no document', ['copy', join(projectFolder(), 'package.json'), join(folder, 'never.odt')]],
    ['a bleed that is none', ['pdf', guide, join(folder, 'never.odt'), '--bleed', 'wide']], ['a folder that is not there', ['copy', guide, join(folder, 'no', 'never.odt')]],
  ])('%s: one line on stderr, and no file', (_name, words) => {
    const { status, stdout, stderr } = run(...words)
    expect(status).toBe(1)
    expect(stdout).toBe('')
    expect(stderr.trim().split('\n').filter(line => !line.startsWith('npm '))).toHaveLength(1)
    expect(stderr).toMatch(/^morphene: /m)
    expect(existsSync(join(folder, 'never.odt'))).toBe(false)
    expect(readdirSync(folder).filter(name => name.startsWith('.morphene'))).toEqual([])
  })
})
