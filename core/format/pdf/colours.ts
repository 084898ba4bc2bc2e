import { PDFName, type PDFContext, type PDFRef } from '@cantoo/pdf-lib'
import { number } from './paths'

/** Process inks in shares from 0 to 1: cyan, magenta, yellow, black. */
export type Process = readonly [number, number, number, number]

/** What a colour of the file is printed with: process inks, or a named spot ink that the process ones stand for. */
export interface PrintInk {
  /** As the file has it: #rrggbb. */
  readonly color: string
  readonly process: Process
  /** The spot ink's name; '' where it is printed with process inks. */
  readonly spot: string
}

const channels = (color: string): readonly [number, number, number] => {
  const value = Number.parseInt(color.slice(1), 16)
  return [(value >> 16) / 255, ((value >> 8) & 255) / 255, (value & 255) / 255]
}

/** Colours as operators of a page (ISO 32000-2, 8.6.8). */
export interface Colours {
  fill(color: string): string
  stroke(color: string): string
  /** What crop marks are drawn in. */
  readonly marks: string
  /** Colour spaces that pages name. */
  readonly spaces: Readonly<Record<string, PDFRef>>
}

/** Colours as the file has them, in sRGB. */
export const screenColours: Colours = {
  fill: color => `${channels(color).map(number).join(' ')} rg`,
  stroke: color => `${channels(color).map(number).join(' ')} RG`,
  marks: '0 G',
  spaces: {},
}

/**
 * Colours for print. Those with ink values of their own are printed with those; black and greys with black alone, since text
 * in four inks is never sharp; all others stay sRGB and say so by a profile, so that whoever prints converts them.
 */
export class PrintColours implements Colours {
  readonly spaces: Record<string, PDFRef> = {}
  readonly marks = '/Registration CS 1 SCN'
  private readonly inks: ReadonlyMap<string, { readonly ink: PrintInk; readonly space: string }>

  constructor(context: PDFContext, inks: readonly PrintInk[], screen: PDFRef) {
    // What is told in device RGB is meant as sRGB (ISO 32000-2, 8.6.5.6; ISO 15930-7, 6.2.3).
    this.spaces.DefaultRGB = context.register(context.obj(['ICCBased', screen]))
    this.spaces.Registration = this.separation(context, 'All', [1, 1, 1, 1])
    const spots = new Map<string, string>()
    this.inks = new Map(
      inks.map(ink => {
        if (ink.spot !== '' && !spots.has(ink.spot)) {
          spots.set(ink.spot, `Spot${spots.size + 1}`)
          this.spaces[spots.get(ink.spot)!] = this.separation(context, ink.spot, ink.process)
        }
        return [ink.color.toLowerCase(), { ink, space: spots.get(ink.spot) ?? '' }]
      }),
    )
  }

  /** One ink by its name, and what stands for it where it is not at hand (ISO 32000-2, 8.6.6.4). */
  private separation(context: PDFContext, name: string, process: Process): PDFRef {
    return context.register(
      context.obj([
        'Separation',
        PDFName.of(name),
        'DeviceCMYK',
        { FunctionType: 2, Domain: [0, 1], C0: [0, 0, 0, 0], C1: [...process], N: 1 },
      ]),
    )
  }

  fill(color: string): string {
    return this.say(color, { process: 'k', grey: 'g', space: 'cs', tint: 'scn', rgb: 'rg' })
  }

  stroke(color: string): string {
    return this.say(color, { process: 'K', grey: 'G', space: 'CS', tint: 'SCN', rgb: 'RG' })
  }

  private say(
    color: string,
    operator: Readonly<Record<'process' | 'grey' | 'space' | 'tint' | 'rgb', string>>,
  ): string {
    const own = this.inks.get(color.toLowerCase())
    if (own)
      return own.space === ''
        ? `${own.ink.process.map(number).join(' ')} ${operator.process}`
        : `/${own.space} ${operator.space} 1 ${operator.tint}`
    const [red, green, blue] = channels(color)
    if (red === green && green === blue)
      return red === 0 ? `0 0 0 1 ${operator.process}` : `${number(red)} ${operator.grey}`
    return `${[red, green, blue].map(number).join(' ')} ${operator.rgb}`
  }
}
