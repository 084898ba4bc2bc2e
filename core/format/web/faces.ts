import type { FaceRecord } from '../../font/face'
import { classify } from '../../font/classify'
import { requestOf } from '../../font/library'
import { licenceOf, type LicenceUse, type UseRight } from '../../font/licence'
import type { Look, Typesetter } from '../../typeset/look'
import type { Axis } from '../../typeset/harfbuzz'
import { fontKey } from '../../typeset/display'
import type { Subsetter } from '../pdf/subset'
import { quoted } from './declarations'

/** A face that text is set in, and what of it is needed. */
interface UsedFace {
  readonly face: FaceRecord
  readonly axes: readonly Axis[]
  /** How often each character is set in it. */
  readonly counts: Map<number, number>
}

/** A face that was not put beside the text, and why. */
export interface LeftFace {
  readonly name: string
  readonly reason: string
}

/** A font file to be put beside the text. */
export interface FaceFile {
  readonly path: string
  readonly bytes: Uint8Array
}

/** What readers have when a face is late or not at hand: families of systems, by the kind of face that they stand for. */
const systems = {
  serif: { family: 'Liberation Serif', others: ['Times New Roman'], generic: 'serif' },
  sans: { family: 'Liberation Sans', others: ['Arial'], generic: 'sans-serif' },
  mono: { family: 'Liberation Mono', others: ['Courier New'], generic: 'monospace' },
} as const
type System = keyof typeof systems

const systemOf = (face: FaceRecord): System => {
  if (face.monospaced) return 'mono'
  const kind = classify(face.measures).class
  return kind === 'serif' || kind === 'slab' ? 'serif' : 'sans'
}
const percentOf = (share: number) => `${Math.round(share * 10000) / 100}%`

/**
 * The faces of what is written for a browser: which are put beside it, cut down to the characters that are set, and what
 * stands for each while it is late, as wide and as high (CSS Fonts 5, 4.4: size-adjust and the overrides of ascent, descent
 * and line gap).
 */
export class WebFaces {
  private readonly used = new Map<string, UsedFace>()
  private readonly families = new Map<string, string>()

  constructor(
    private readonly typesetter: Typesetter,
    /** What the faces are wanted for: their licences are asked for it. */
    private readonly use: LicenceUse,
    /** What has been agreed with a face's maker, where that is known: it comes before what the file says. */
    private readonly rightOf: (face: FaceRecord) => UseRight | undefined = face =>
      licenceOf(face).uses.find(each => each.use === use),
  ) {}

  /** Notes text, and gives the families for it as CSS takes them. @param named the family that the document names */
  familiesFor(look: Look, named: string, text: string): string {
    const key = fontKey({ face: look.face.hash, axes: look.axes })
    let used = this.used.get(key)
    if (!used) this.used.set(key, (used = { face: look.face, axes: look.axes, counts: new Map() }))
    for (const character of text) {
      const code = character.codePointAt(0)!
      used.counts.set(code, (used.counts.get(code) ?? 0) + 1)
    }
    const stack = `${named}|${look.face.family}|${key}`
    let families = this.families.get(stack)
    if (families === undefined) {
      const { generic } = systems[systemOf(look.face)]
      const names = [
        ...(named && named !== look.face.family ? [named] : []),
        look.face.family,
        `${look.face.family} fallback`,
      ]
      this.families.set(stack, (families = [...names.map(quoted), generic].join(', ')))
    }
    return families
  }

  /**
   * The rules and files of all faces that were noted.
   * @param load a face's file by its hash
   * @param pack makes WOFF2 of a font file; without it files stay as they are
   */
  async write(
    folder: string,
    load: (hash: string) => Uint8Array | undefined,
    subsetter: Subsetter,
    pack: ((file: Uint8Array) => Promise<Uint8Array>) | null,
  ): Promise<{ readonly css: string; readonly files: FaceFile[]; readonly left: LeftFace[] }> {
    const rules: string[] = []
    const files: FaceFile[] = []
    const left: LeftFace[] = []
    for (const used of this.used.values()) {
      const { face } = used
      const right = this.rightOf(face)
      const file = load(face.hash)
      if (right?.right !== 'allowed')
        left.push({ name: face.fullName, reason: right ? `${this.use}: ${right.right} (${right.from})` : 'not stated' })
      else if (!file) left.push({ name: face.fullName, reason: 'its file is not at hand' })
      else {
        const cut = subsetter.subsetFor(file, used.counts.keys(), used.axes)
        const kind = pack ? 'woff2' : String.fromCharCode(...cut.subarray(0, 4)) === 'OTTO' ? 'otf' : 'ttf'
        const name = face.fullName.replace(/[^A-Za-z0-9]+/g, '-').replace(/^-|-$/g, '') || 'face'
        const path = `${folder}${name}${files.some(each => each.path.includes(`/${name}.`)) ? `-${files.length}` : ''}.${kind}`
        files.push({ path, bytes: pack ? await pack(cut) : cut })
        const format = { woff2: 'woff2', otf: 'opentype', ttf: 'truetype' }[kind]
        rules.push(
          rule([...this.names(face), ['src', `url(${quoted(path)}) format("${format}")`], ['font-display', 'swap']]),
        )
      }
      rules.push(this.fallback(used))
    }
    return { css: rules.join('\n'), files, left }
  }

  /** The rules of what stands in for the faces that were noted, alone. */
  fallbacks(): string {
    return [...this.used.values()].map(used => this.fallback(used)).join('\n')
  }

  private names(face: FaceRecord, family = face.family): [string, string][] {
    return [
      ['font-family', quoted(family)],
      ['font-weight', String(face.weight)],
      ['font-style', face.slant === 'italic' ? 'italic' : 'normal'],
    ]
  }

  private fallback(used: UsedFace): string {
    const { face } = used
    const system = systems[systemOf(face)]
    const bold = face.weight >= 600
    const suffix = `${bold ? ' Bold' : ''}${face.slant === 'italic' ? ' Italic' : ''}`
    const local = [system.family, ...system.others].map(name => `local(${quoted(`${name}${suffix}`)})`).join(', ')
    const { lineAscent, lineDescent, lineGap } = face.measures
    const width = this.widthBeside(used, system.family, bold)
    const high = (value: number) => percentOf(value / 1000 / width)
    return rule([
      ...this.names(face, `${face.family} fallback`),
      ['src', local],
      ['size-adjust', percentOf(width)],
      ['ascent-override', high(lineAscent)],
      ['descent-override', high(lineDescent)],
      ['line-gap-override', high(lineGap)],
    ])
  }

  /** How wide the text runs in its face, to how wide in a system's: by the advances of its own characters. */
  private widthBeside({ face, axes, counts }: UsedFace, family: string, bold: boolean): number {
    const { library, shaper } = this.typesetter
    const { face: other } = library.resolve(requestOf(family, bold ? 700 : 400, face.slant === 'italic'))
    const [own, its] = [shaper.font(face.hash, axes), shaper.font(other.hash, [])]
    if (!own || !its) return 1
    let [wide, beside] = [0, 0]
    for (const [code, count] of counts) {
      const [one, two] = [shaper.engine.nominal(own, code), shaper.engine.nominal(its, code)]
      if (!one || !two) continue
      wide += (one.advance / own.unitsPerEm) * count
      beside += (two.advance / its.unitsPerEm) * count
    }
    return beside > 0 && wide > 0 ? Math.min(Math.max(wide / beside, 0.3), 3) : 1
  }
}

const rule = (lines: readonly (readonly [string, string])[]) =>
  `@font-face {\n${lines.map(([name, value]) => `  ${name}: ${value};`).join('\n')}\n}`
