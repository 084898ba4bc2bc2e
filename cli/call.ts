import { parseArgs } from 'node:util'

/** A mistake in the call, or a file that cannot be used. The message is one line. */
export class CommandError extends Error {}

/** What a command was called with. Options may come several times; switches have no value. */
export interface Call {
  readonly command: string
  readonly files: readonly string[]
  readonly options: ReadonlyMap<string, readonly string[]>
  readonly switches: ReadonlySet<string>
}

const withValue = new Set([
  '--from',
  '--to',
  '--from-face',
  '--to-face',
  '--out',
  '--bleed',
  '--size',
  '--leading',
  '--find',
  '--family',
  '--face',
  '--status',
  '--at-size',
  '--style',
  '--role',
  '--language',
  '--color',
  '--pages',
  '--words',
  '--set-family',
  '--set-face',
  '--set-size',
  '--set-color',
  '--set-style',
  '--set-character-style',
  '--recolor',
  '--wish',
  '--like',
  '--with',
  '--proportions',
  '--detail',
  '--tolerance',
  '--headings',
  '--house',
  '--names',
  '--name',
  '--checklist',
  '--made-for',
  '--fail-on',
  '--print',
  '--profile',
  '--page',
  '--at',
  '--text',
  '--width',
  '--report',
])
const switches = new Set([
  '--json',
  '--marks',
  '--leave-out',
  '--notes',
  '--dry-run',
  '--expression',
  '--match-case',
  '--whole-words',
  '--stray',
  '--settle',
  '--library',
  '--sweep',
  '--junit',
  '--repair',
  '--paint',
])

/** @throws CommandError */
export function parseCall(words: readonly string[]): Call {
  const config: Record<string, { type: 'string' | 'boolean'; multiple: boolean }> = {}
  for (const name of withValue) config[name.slice(2)] = { type: 'string', multiple: true }
  for (const name of switches) config[name.slice(2)] = { type: 'boolean', multiple: false }
  try {
    const { values, positionals } = parseArgs({ args: words.slice(1), options: config, allowPositionals: true })
    const given = Object.entries(values)
    return {
      command: words[0] ?? '',
      files: positionals,
      options: new Map(
        given.flatMap(([name, value]) => (Array.isArray(value) ? [[`--${name}`, value as string[]]] : [])),
      ),
      switches: new Set(given.flatMap(([name, value]) => (value === true ? [`--${name}`] : []))),
    }
  } catch (error) {
    const { code, message } = error as { code?: string; message: string }
    const name = /'(--?[\w-]+)/.exec(message)?.[1] ?? ''
    if (code === 'ERR_PARSE_ARGS_UNKNOWN_OPTION') throw new CommandError(`there is no option ${name}`)
    if (code === 'ERR_PARSE_ARGS_INVALID_OPTION_VALUE')
      throw new CommandError(switches.has(name) ? `${name} takes no value` : `${name} needs a value`)
    throw error
  }
}

/** The value of an option that comes once. @throws CommandError where it comes more often */
export function single(call: Call, name: string): string | undefined {
  const values = call.options.get(name) ?? []
  if (values.length > 1) throw new CommandError(`${name} is given ${values.length} times; once is enough`)
  return values[0]
}

/**
 * What a command prints, and the code it ends with: 0 done; 1 it went wrong; 2 there was nothing to do, or faces
 * are absent; 3 some of several files failed.
 */
export interface Outcome {
  readonly text: string
  readonly code: 0 | 2 | 3
}
export const fine = (text: string): Outcome => ({ text, code: 0 })
