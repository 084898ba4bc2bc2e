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
])

/** @throws CommandError */
export function parseCall(words: readonly string[]): Call {
  const files: string[] = []
  const options = new Map<string, string[]>()
  const set = new Set<string>()
  for (let at = 1; at < words.length; at++) {
    const word = words[at]!
    if (switches.has(word)) set.add(word)
    else if (withValue.has(word)) {
      const value = words[++at]
      if (value === undefined || value.startsWith('--')) throw new CommandError(`${word} needs a value`)
      options.set(word, [...(options.get(word) ?? []), value])
    } else if (word.startsWith('--')) throw new CommandError(`there is no option ${word}`)
    else files.push(word)
  }
  return { command: words[0] ?? '', files, options, switches: set }
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
