import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { command } from '../../../cli/command'
import { berthContract } from '../../../demo/berth-contract'
import { harbourNotice } from '../../../demo/harbour-notice'
import { handoffWorks } from '../../../server/library/handoff-works'
import { startSubsetter } from '../../../server/library/harfbuzz'
import { shippedLibrary } from '../../../server/library/shipped'
import { makeOdt, typesetter } from '../../support/fixtures'

const folder = mkdtempSync(join(tmpdir(), 'morphene-proof-'))
const file = (name: string, content?: Uint8Array | string) => {
  if (content !== undefined) writeFileSync(join(folder, name), content)
  return join(folder, name)
}
afterAll(() => rmSync(folder, { recursive: true }))

const notice = file('notice.odt', harbourNotice())
const quoted = file(
  'quoted.odt',
  makeOdt({
    body: '<text:p>"Wait" &amp; see</text:p>',
    faces: '<style:font-face style:name="Spectral" svg:font-family="Spectral"/>',
    styles:
      '<style:default-style style:family="paragraph"><style:text-properties fo:font-family="Spectral" fo:font-size="12pt" ' +
      'fo:language="en" fo:country="GB"/></style:default-style>',
  }),
)
interface Told {
  readonly file: string
  readonly findings: readonly { readonly check: string; readonly severity: string; readonly repairable: boolean }[]
}
const told = async (...words: string[]) => JSON.parse((await command(['proof', ...words, '--json'])).stdout) as Told[]

describe('a proof from the command line', () => {
  it('tells of each file what was found, one or several', async () => {
    const [one] = await told(notice)
    expect(one!.file).toBe(notice)
    expect(one!.findings.find(each => each.check === 'empty-paragraph')).toMatchObject({
      severity: 'warning',
      page: '1',
      repairable: true,
    })
    expect((await told(notice, quoted)).map(each => each.file)).toEqual([notice, quoted])
    const { stdout } = await command(['proof', quoted])
    expect(stdout).toMatch(/^2 warnings/)
    expect(stdout).toContain('Straight quotation mark or apostrophe')
  })

  it('ends by how much what it finds matters', async () => {
    const status = async (...words: string[]) => (await command(['proof', quoted, ...words])).status
    expect(await status()).toBe(0)
    expect(await status('--fail-on', 'warning')).toBe(2)
    expect((await command(['proof', quoted, '--fail-on', 'all'])).stderr).toContain('error, warning, note')
    const off = file('list.json', JSON.stringify({ checks: { 'straight-quote': { runs: false } } }))
    expect(await status('--fail-on', 'warning', '--checklist', off)).toBe(0)
    const bad = file('bad.json', '{"checks": []}')
    expect((await command(['proof', quoted, '--checklist', bad])).stderr).toContain('is no checklist')
  })

  it('is XML for build servers', async () => {
    const { stdout } = await command(['proof', quoted, '--junit', '--fail-on', 'warning'])
    expect(stdout).toContain(`<testsuite name="${quoted}" tests="1" failures="1">`)
    expect(stdout).toContain('<failure message="2 found">page 1: &quot; for “')
  })

  it('puts right what can be, and writes it where it is told to', async () => {
    const out = file('mended.odt')
    const { stdout } = await command(['proof', quoted, '--repair', '--out', out])
    expect(stdout).toContain(`2 places put right; pages 1 before, 1 after; written: ${out}`)
    expect(readFileSync(out).length).toBeGreaterThan(500)
    expect((await told(out))[0]!.findings.some(each => each.check === 'straight-quote')).toBe(false)
    const dry = await command(['proof', quoted, '--repair', '--out', file('dry.odt'), '--dry-run'])
    expect(dry.stdout.trimEnd().endsWith('\nnothing was written')).toBe(true)
    expect((await command(['proof', quoted, '--repair'])).stderr).toContain('--repair needs --out')
    expect((await command(['proof', out, '--repair', '--out', file('again.odt')])).stdout).toContain(
      'nothing was written',
    )
  })

  it('holds faces against what documents are made for', async () => {
    const plain = file(
      'plain.odt',
      makeOdt({
        body: '<text:p>Wait and see</text:p>',
        faces: '<style:font-face style:name="Monoton" svg:font-family="Monoton"/>',
        styles:
          '<style:default-style style:family="paragraph"><style:text-properties fo:font-family="Monoton" ' +
          'fo:font-size="12pt" fo:language="en" fo:country="GB"/></style:default-style>',
      }),
    )
    const rights = async (...words: string[]) =>
      (await told(plain, ...words))[0]!.findings.filter(each => each.check === 'unlicensed')
    expect(await rights()).toEqual([])
    expect(await rights('--made-for', 'pdf')).toEqual([])
    expect(await rights('--made-for', 'PDF, web page', '--made-for', 'print')).toMatchObject([
      { severity: 'warning', says: expect.stringContaining('not said to be licensed for: print') as string },
      { severity: 'warning', says: expect.stringContaining('not said to be licensed for: web page') as string },
    ])
    expect((await command(['proof', plain, '--made-for', 'film'])).stderr).toContain('--made-for takes print, PDF')
  })

  it('holds documents against a house', async () => {
    const tokens = file('house.json')
    await command(['house', notice, '--name', 'Quay', '--out', tokens])
    const [own] = await told(quoted, '--house', tokens)
    expect(own!.findings.some(each => each.check === 'not-to-style')).toBe(true)
  })
})

describe('comparing from the command line', () => {
  it('tells places, styles and voices, and that two files are alike', async () => {
    const { stdout, status } = await command(['compare', notice, quoted])
    expect(status).toBe(0)
    expect(stdout).toMatch(/places differ; 1 pages before, 1 after/)
    expect(stdout).toContain('"Wait" & see')
    const alike = await command(['compare', notice, notice])
    expect([alike.stdout.trim(), alike.status]).toEqual(['they differ in nothing', 2])
    const { differences } = JSON.parse((await command(['compare', notice, quoted, '--json'])).stdout) as {
      differences: { kind: string }[]
    }
    expect(differences.some(each => each.kind === 'came')).toBe(true)
    expect((await command(['compare', notice])).stderr).toContain('compare needs two files')
  })

  it('takes finished PDFs beside documents, and puts their words right behind the bytes that were there', async () => {
    const contract = file(
      'contract.pdf',
      await berthContract(typesetter, handoffWorks(shippedLibrary().load, startSubsetter())),
    )
    const both = await told(contract, quoted)
    expect(both.map(each => each.file)).toEqual([contract, quoted])
    const hyphen = both[0]!.findings.find(each => each.check === 'hyphen-for-dash')
    expect(hyphen).toMatchObject({ severity: 'warning', repairable: true })
    const out = file('mended.pdf')
    const { stdout, status } = await command(['proof', contract, '--repair', '--out', out, '--fail-on', 'note'])
    expect(status).toBe(2)
    expect(stdout).toMatch(/Put \d lines? right; written: .*mended\.pdf/)
    const [before, after] = [readFileSync(contract), readFileSync(out)]
    expect(Buffer.compare(after.subarray(0, before.length), before)).toBe(0)
    expect((await told(out))[0]!.findings.map(each => each.check)).not.toContain('straight-quote')
    // What cannot be put right writes nothing.
    const again = await command(['proof', out, '--repair', '--out', file('again.pdf')])
    expect(again.stdout).toContain('nothing was written')
    expect(existsSync(file('again.pdf'))).toBe(false)
    const none = file('none.pdf', 'no PDF at all')
    expect((await command(['proof', none])).status).toBe(1)
    expect(await command(['proof', contract, none])).toMatchObject({ status: 3 })
    expect((await command(['proof', contract, '--junit'])).stdout).toContain('<testsuite name=')
  })
})
