/*
 * Makes core/typeset/unicode-data.ts from the Unicode Character Database of Debian's package unicode-data:
 *   npx tsx scripts/unicode-data.ts [FOLDER]
 * The tables are kept with the code, so that browser, server and command line break and shape alike whatever their age.
 */
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { projectFolder } from '../server/library/files'

const folder = process.argv[2] ?? '/usr/share/unicode'
const last = 0x10ffff

function property(file: string, fallback: string): string[] {
  const values = new Array<string>(last + 1).fill(fallback)
  for (const line of readFileSync(join(folder, file), 'utf8').split('\n')) {
    const match = /^([0-9A-F]+)(?:\.\.([0-9A-F]+))?\s*;\s*(\w+)/.exec(line)
    if (match) values.fill(match[3]!, Number.parseInt(match[1]!, 16), Number.parseInt(match[2] ?? match[1]!, 16) + 1)
  }
  return values
}

/** Runs of equal values: names in order of first use, then a token of a letter code and a length for each run. */
function packed(values: readonly string[]): { names: string; runs: string } {
  const names: string[] = []
  const tokens: string[] = []
  const code = (index: number) =>
    (index >= 26 ? String.fromCharCode(96 + Math.floor(index / 26)) : '') + String.fromCharCode(65 + (index % 26))
  for (let at = 0; at <= last;) {
    let end = at + 1
    while (end <= last && values[end] === values[at]) end++
    let index = names.indexOf(values[at]!)
    if (index < 0) index = names.push(values[at]!) - 1
    tokens.push(code(index) + (end - at).toString())
    at = end
  }
  return { names: names.join(' '), runs: tokens.join('') }
}

const wide = property('EastAsianWidth.txt', 'N').map(value => value === 'F' || value === 'W' || value === 'H')
const lineBreak = property('LineBreak.txt', 'XX').map((value, code) => {
  const character = code >= 0xd800 && code < 0xe000 ? 'x' : String.fromCodePoint(code)
  // LB1 of UAX #14, and the distinctions that LB30 and LB30b ask for.
  if (/\p{Extended_Pictographic}/u.test(character) && /\p{Cn}/u.test(character)) return 'PictCn'
  if (value === 'AI' || value === 'SG' || value === 'XX') return 'AL'
  if (value === 'SA') return /[\p{Mn}\p{Mc}]/u.test(character) ? 'CM' : 'SA'
  if ((value === 'OP' || value === 'CP') && wide[code]) return `${value}wide`
  return value
})
/** ISO 15924 codes, which shaping wants, for the long names that Scripts.txt has. */
const codes = new Map(
  [...readFileSync(join(folder, 'PropertyValueAliases.txt'), 'utf8').matchAll(/^sc ; (\w+)\s*; (\w+)/gm)].map(match => [
    match[2]!,
    match[1]!,
  ]),
)
const script = property('Scripts.txt', 'Unknown').map(name => codes.get(name) ?? 'Zzzz')
const version = /LineBreak-([\d.]+)\.txt/.exec(readFileSync(join(folder, 'LineBreak.txt'), 'utf8'))![1]!
const lines = packed(lineBreak)
const scripts = packed(script)
writeFileSync(
  join(projectFolder(), 'core/typeset/unicode-data.ts'),
  `// Made by scripts/unicode-data.ts from the Unicode Character Database ${version}; see there. Not to be edited.
export const unicodeVersion = '${version}'
export const lineBreakClasses = '${lines.names}'
export const lineBreakRuns = '${lines.runs}'
export const scriptNames = '${scripts.names}'
export const scriptRuns = '${scripts.runs}'
`,
)
console.log(`Unicode ${version}: ${lines.runs.length + scripts.runs.length} characters of tables`)
