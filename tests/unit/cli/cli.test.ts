import { spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { unzipSync } from 'fflate'
import { afterAll, describe, expect, it } from 'vitest'
import { command } from '../../../cli/command'
import type { Census } from '../../../core/census/census'
import { sailingGuide } from '../../../demo/sailing-guide'
import { seasonReview } from '../../../demo/season-review'
import { projectFolder } from '../../../server/library/files'

const folder = mkdtempSync(join(tmpdir(), 'morphene-cli-'))
const guide = join(folder, 'guide.odt')
writeFileSync(guide, sailingGuide())
afterAll(() => {
  rmSync(folder, { recursive: true })
})
const run = (...words: string[]) => command(words)

describe('the command line', () => {
  it('takes the census as text and as JSON', async () => {
    expect((await run('census', guide)).stdout).toMatch(/settled, [\d]+ characters, 24 pages/)
    const census = JSON.parse((await run('census', guide, '--json')).stdout) as Census
    expect(census.document).toMatchObject({ kind: 'text', title: 'Sailing guide', pages: 24 })
    const [first] = census.faces
    for (const key of ['family', 'style', 'slot', 'status', 'standIn', 'characters', 'styles', 'pages', 'places'])
      expect(first).toHaveProperty(key)
    for (const key of ['body', 'frame', 'table', 'header', 'note', 'chart', 'master', 'default', 'annotation'])
      expect(first!.places).toHaveProperty(key)
  })

  it('swaps into a new file and reports', async () => {
    const out = join(folder, 'out.odt')
    const { status, stdout } = await run(
      'swap',
      guide,
      '--from',
      'Skerrow',
      '--to',
      'Work Sans',
      '--out',
      out,
      '--json',
    )
    expect(status).toBe(0)
    const report = JSON.parse(stdout) as Record<string, unknown>
    expect(report).toMatchObject({ places: 7, pagesBefore: 24, pagesAfter: 24, missingGlyphs: [], left: [] })
    for (const key of ['items', 'overset', 'unlaid']) expect(report).toHaveProperty(key)
    expect((await run('census', out)).stdout).not.toContain('Skerrow')
  })

  it('takes decks and drawings as it takes texts, notes in the PDF where they are wanted', async () => {
    const deck = join(folder, 'deck.odp')
    writeFileSync(deck, seasonReview())
    expect((await run('census', deck)).stdout).toMatch(/14 pages/)
    const swapped = join(folder, 'swapped.odp')
    expect((await run('swap', deck, '--from', 'Skerrow', '--to', 'Jost', '--out', swapped)).status).toBe(0)
    expect((await run('census', swapped)).stdout).not.toContain('Skerrow')
    const copied = join(folder, 'copied.odp')
    expect((await run('copy', deck, copied)).status).toBe(0)
    expect(Buffer.compare(readFileSync(copied), readFileSync(deck))).toBe(0)
    expect((await run('pdf', deck, join(folder, 'deck.pdf'), '--notes')).stdout).toContain('28 pages')
  })

  it('makes texts of Markdown, and says what it left', async () => {
    const source = join(folder, 'tides.md')
    writeFileSync(source, '# Tides\n\nHigh at *noon*. ![x](a.png)\n')
    const out = join(folder, 'tides.odt')
    expect((await run('text', source, out)).stdout).toContain('left out or guessed: pictures')
    expect((await run('census', out)).stdout).toMatch(/^Tides: 100.0 % settled/)
    writeFileSync(join(folder, 'bad.txt'), '')
    const refused = await run('text', join(folder, 'bad.txt'), join(folder, 'none.odt'))
    expect([
      refused.status === 0,
      refused.stderr.trim().split('\n').length,
      existsSync(join(folder, 'none.odt')),
    ]).toEqual([false, 1, false])
  })

  it('writes the pages as PDF, with bleed and marks', async () => {
    const out = join(folder, 'pages.pdf')
    const { status, stdout } = await run('pdf', guide, out, '--bleed', '3mm', '--marks')
    expect(status).toBe(0)
    expect(stdout).toContain('24 pages')
    expect(stdout).not.toContain('empty box')
    expect(spawnSync('qpdf', ['--check', out]).status).toBe(0)
  })

  it('hands a document on as a book, a page for browsers, CSS, tokens, a template, and for print', async () => {
    const to = (name: string) => join(folder, name)
    expect((await run('epub', guide, to('guide.epub'))).stdout).toMatch(/^written: .*guide\.epub, \d+ chapters/)
    expect((await run('html', guide, to('site'))).status).toBe(0)
    expect(readFileSync(to('site/index.html'), 'utf8')).toContain('<link rel="stylesheet" href="style.css"/>')
    expect((await run('html', guide, to('site.zip'))).status).toBe(0)
    expect((await run('css', guide, to('guide.css'))).status).toBe(0)
    expect(
      JSON.parse(
        (await run('tokens', guide, to('guide.json'))).status === 0 ? readFileSync(to('guide.json'), 'utf8') : '',
      ),
    ).toHaveProperty('paragraph')
    expect((await run('template', guide, to('guide.ott'))).status).toBe(0)
    const print = await run('pdf', guide, to('print.pdf'), '--print', 'FOGRA39L', '--leave-out')
    expect(print.stdout).toContain('built to PDF/X-4')
    expect((await run('pdf', guide, to('never.pdf'), '--print', 'nowhere')).stderr).toContain('--print takes FOGRA39L')
    expect((await run('pdf', guide, to('never.pdf'), '--profile', guide)).stderr).toContain(
      'is none of a printing condition',
    )
  })

  it('counts finished PDFs, adds text to them and puts words right', async () => {
    const pdf = join(folder, 'finished.pdf')
    const out = join(folder, 'changed.pdf')
    await run('pdf', guide, pdf)
    expect((await run('census', pdf)).stdout).toMatch(/24 pages, \d+ characters, \d+ fonts, tagged/)
    expect(JSON.parse((await run('census', pdf, '--json')).stdout)).toHaveProperty('fonts')
    const add = ['--text', 'Seen', '--family', 'Spectral']
    expect((await run('pdf-add', pdf, out, '--page', '2', '--at', '10mm,8mm', ...add)).stdout).toContain(
      'added “Seen” on page 2',
    )
    expect(spawnSync('pdftotext', ['-f', '2', '-l', '2', out, '-'], { encoding: 'utf8' }).stdout).toContain('Seen')
    const right = await run('pdf-right', pdf, out, '--find', 'Crossing', '--words', 'Sailing')
    expect(right.stdout).toContain('put right in its own font')
    expect((await run('pdf-right', pdf, out, '--find', 'Nothing such', '--words', 'x')).stderr).toContain(
      'is on no line of page 1',
    )
    expect((await run('pdf-add', pdf, out, '--at', 'here', ...add)).stderr).toContain('pdf-add needs')
    expect((await run('census', join(folder, 'guide.odt.pdf'))).stderr).toContain('there is no file')
  })

  it('puts documents into a bundle', async () => {
    const zip = join(folder, 'all.zip')
    const { status, stdout } = await run('bundle', guide, guide, zip)
    expect(status).toBe(0)
    expect(stdout).toMatch(/2 documents, \d+ font files/)
    expect(Object.keys(unzipSync(readFileSync(zip)))).toContain('Contents.txt')
    expect((await run('bundle', guide)).stderr).toContain('bundle FILES OUT.zip')
  })

  it('runs from its source, with what it complains of apart and a code', { timeout: 240_000 }, () => {
    const called = (...words: string[]) =>
      spawnSync(process.execPath, ['--import', 'tsx', 'cli/main.ts', ...words], {
        cwd: projectFolder(),
        encoding: 'utf8',
      })
    expect(called('help').stdout).toContain('morphene: the typography of a document')
    const refused = called('polish')
    expect([refused.status, refused.stdout]).toEqual([1, ''])
    expect(refused.stderr).toMatch(/^morphene: .*polish/m)
  })

  it('copies unchanged', async () => {
    const out = join(folder, 'copy.odt')
    expect((await run('copy', guide, out)).status).toBe(0)
    expect(readFileSync(out)).toEqual(readFileSync(guide))
  })

  it.each([
    ['no such file', ['census', 'nowhere.odt']],
    ['no such command', ['polish', guide]],
    ['no such option', ['census', guide, '--loud']],
    ['a wish without an end', ['swap', guide, '--from', 'Skerrow']],
    ['an unknown family', ['swap', guide, '--from', 'Skerrow', '--to', 'Nowhere', '--out', join(folder, 'never.odt')]],
    ['a file that is no document', ['copy', join(projectFolder(), 'package.json'), join(folder, 'never.odt')]],
    ['a bleed that is none', ['pdf', guide, join(folder, 'never.odt'), '--bleed', 'wide']],
    ['a folder that is not there', ['copy', guide, join(folder, 'no', 'never.odt')]],
  ])('%s: one line on stderr, and no file', async (_name, words) => {
    const { status, stdout, stderr } = await run(...words)
    expect(status).toBe(1)
    expect(stdout).toBe('')
    expect(stderr.trim().split('\n')).toHaveLength(1)
    expect(stderr).toMatch(/^morphene: /m)
    expect(existsSync(join(folder, 'never.odt'))).toBe(false)
    expect(readdirSync(folder).filter(name => name.startsWith('.morphene'))).toEqual([])
  })
})

describe('plans from a terminal', () => {
  const texts = join(folder, 'texts')
  mkdirSync(join(texts, 'inner'), { recursive: true })
  writeFileSync(join(texts, 'guide.odt'), sailingGuide())
  writeFileSync(join(texts, 'inner', 'review.odp'), seasonReview())
  writeFileSync(join(texts, 'inner', 'broken.odt'), 'no document')
  writeFileSync(join(texts, 'notes.txt'), 'not looked at')

  it('several pairs act at once, at sizes that look alike, over a folder; what fails is told and the others are written', async () => {
    const out = join(folder, 'swapped')
    const { status, stdout } = await run(
      'swap',
      texts,
      '--from',
      'Skerrow',
      '--to',
      'Work Sans',
      '--from',
      'Spectral',
      '--to',
      'Literata',
      '--size',
      'x-height',
      '--out',
      out,
      '--json',
    )
    expect(status).toBe(3)
    const reports = JSON.parse(stdout) as {
      file: string
      places?: number
      sizes?: { percent: number }[]
      failed?: string
      written?: string
    }[]
    expect(reports.map(report => [report.file.slice(texts.length + 1), report.failed === undefined])).toEqual([
      ['guide.odt', true],
      ['inner/broken.odt', false],
      ['inner/review.odp', true],
    ])
    expect(reports[0]!.sizes).toHaveLength(2)
    const census = (await run('census', join(out, 'inner', 'review.odp'))).stdout
    expect(census).toContain('Literata')
    expect(census).not.toMatch(/Skerrow|Spectral Regular/)
    expect(existsSync(join(out, 'inner', 'broken.odt'))).toBe(false)
  })

  it('a dry run writes nothing, and a font that nothing names is nothing to do', async () => {
    const out = join(folder, 'dry.odt')
    expect((await run('swap', guide, '--from', 'Skerrow', '--to', 'Work Sans', '--out', out, '--dry-run')).status).toBe(
      0,
    )
    expect(existsSync(out)).toBe(false)
    expect((await run('swap', guide, '--from', 'Nobody Sans', '--to', 'Work Sans')).status).toBe(2)
  })

  it('recasts words, look and colours', async () => {
    const out = join(folder, 'recast.odt')
    const { status, stdout } = await run(
      'recast',
      guide,
      '--find',
      'ferr(y|ies)',
      '--expression',
      '--words',
      'boat',
      '--set-size',
      '110%',
      '--recolor',
      '#1f6f6b=#123456',
      '--out',
      out,
    )
    expect(status).toBe(0)
    expect(stdout).toContain(
      'Find what matches ferr(y|ies) in the whole document, write “boat”, and set it at 110 ' +
        '% of its size. #1f6f6b becomes #123456 everywhere.',
    )
    expect((await run('recast', out, '--find', 'ferr(y|ies)', '--expression')).status).toBe(2)
    expect((await run('recast', guide, '--at-size', 'big')).stderr).toContain('--at-size is a number or a range')
  })

  it('tells absent faces, with what could take their place, and ends so that a script can tell', async () => {
    const { status, stdout } = await run('absent', guide)
    expect(status).toBe(2)
    expect(stdout).toMatch(/◇ .*one space.*on page/)
    const { absent } = JSON.parse((await run('absent', join(texts, 'inner', 'review.odp'), '--json')).stdout) as {
      absent: { family: string; suggestions: unknown[] }[]
    }
    expect(absent.map(face => face.family)).toContain('Skerrow')
    const out = join(folder, 'mended.odt')
    await run('recast', guide, '--status', 'absent', '--settle', '--out', out)
    expect((await run('swap', out, '--from', 'Skerrow', '--to', 'Jost', '--out', out)).status).toBe(0)
    expect((await run('absent', out)).stdout).not.toContain('Skerrow')
  })

  it.each([
    ['swaps that do not pair', ['swap', guide, '--from', 'Skerrow', '--from', 'Jost', '--to', 'Inter']],
    ['a size that is none', ['swap', guide, '--from', 'Skerrow', '--to', 'Inter', '--size', 'big']],
    ['a folder where a file is meant', ['census', texts]],
    ['a file where a folder is meant', ['swap', texts, '--from', 'Skerrow', '--to', 'Inter', '--out', guide]],
  ])('%s: refused with one line', async (_name, words) => {
    const { status, stderr } = await run(...words)
    expect(status).not.toBe(0)
    expect(stderr.trim().split('\n')).toHaveLength(1)
  })
})
