import { PDFName, type PDFContext, type PDFRef } from '@cantoo/pdf-lib'
import type { Ink } from '../../house/house'
import { number } from './paths'

/** What a colour of the file (#rrggbb) is printed with. */
export interface PrintInk {
  readonly color: string
  readonly ink: Ink
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
  /** What is said in place of a colour: the operands, and for a spot ink the space that is named first. */
  private readonly inks = new Map<string, { readonly space: string; readonly operands: string }>()

  constructor(context: PDFContext, inks: readonly PrintInk[], screen: PDFRef) {
    // What is told in device RGB is meant as sRGB (ISO 32000-2, 8.6.5.6; ISO 15930-7, 6.2.3).
    this.spaces.DefaultRGB = context.register(context.obj(['ICCBased', screen]))
    this.spaces.Registration = separation(context, 'All', PDFName.of('DeviceCMYK'), [0, 0, 0, 0], [1, 1, 1, 1])
    let spots = 0
    const spaceOf = new Map<string, string>()
    for (const { color, ink } of inks) {
      if ('process' in ink) {
        this.inks.set(color.toLowerCase(), {
          space: '',
          operands: ink.process.map(share => number(share / 100)).join(' '),
        })
        continue
      }
      let space = spaceOf.get(ink.spot)
      if (space === undefined) {
        spaceOf.set(ink.spot, (space = `Spot${++spots}`))
        // Where the ink is not at hand, the colour that the file has stands for it.
        this.spaces[space] = separation(context, ink.spot, this.spaces.DefaultRGB, [1, 1, 1], channels(color))
      }
      this.inks.set(color.toLowerCase(), { space, operands: '1' })
    }
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
        ? `${own.operands} ${operator.process}`
        : `/${own.space} ${operator.space} ${own.operands} ${operator.tint}`
    const [red, green, blue] = channels(color)
    if (red === green && green === blue)
      return red === 0 ? `0 0 0 1 ${operator.process}` : `${number(red)} ${operator.grey}`
    return `${[red, green, blue].map(number).join(' ')} ${operator.rgb}`
  }
}

/** One ink by its name, and what stands for it where it is not at hand (ISO 32000-2, 8.6.6.4). */
function separation(
  context: PDFContext,
  name: string,
  alternate: PDFName | PDFRef,
  none: readonly number[],
  full: readonly number[],
): PDFRef {
  return context.register(
    context.obj([
      'Separation',
      PDFName.of(name),
      alternate,
      { FunctionType: 2, Domain: [0, 1], C0: [...none], C1: [...full], N: 1 },
    ]),
  )
}
