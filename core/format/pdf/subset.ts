import { tagNumber, type Axis, type StartModule } from '../../typeset/harfbuzz'

type Call = (...values: number[]) => number

/**
 * Flags of hb_subset_flags_t: no instructions for the screen, glyph ids stay what they are, the glyph for missing
 * signs keeps its outline.
 */
const flags = 0x01 | 0x02 | 0x40
/** No instructions for the screen; the glyph for missing signs keeps its outline. */
const webFlags = 0x01 | 0x40
/** Members of hb_subset_sets_t. */
const glyphSet = 0
const dropTables = 3
const layoutFeatures = 6
/** Shaping is done: what it needs goes, and with it glyphs that only it could reach. */
const unneeded = ['GSUB', 'GPOS', 'GDEF', 'STAT', 'DSIG', 'MATH', 'kern', 'BASE', 'JSTF', 'meta', 'avar']

/** Cuts font files down to the glyphs that are used, with HarfBuzz's subsetter (package harfbuzzjs). */
export class Subsetter {
  private readonly call: Readonly<Record<string, Call>>
  private readonly memory: { readonly buffer: ArrayBuffer }

  constructor(start: StartModule, code: Uint8Array) {
    const exports = start(code, {})
    this.memory = exports.memory as { buffer: ArrayBuffer }
    this.call = exports as Record<string, Call>
    this.call._initialize?.()
  }

  /**
   * The file with some glyphs of it, under their old ids, at a place on its axes where it is variable; the whole file
   * where it cannot be cut.
   */
  subset(file: Uint8Array, glyphs: Iterable<number>, axes: readonly Axis[] = []): Uint8Array {
    return this.cut(file, axes, flags, (input, add) => {
      add(this.call.hb_subset_input_set!(input, glyphSet), glyphs)
      add(this.call.hb_subset_input_set!(input, dropTables), unneeded.map(tagNumber))
    })
  }

  /**
   * The file with what some characters need, shaping included, for readers that set text themselves; the whole file where it
   * cannot be cut.
   */
  subsetFor(file: Uint8Array, codePoints: Iterable<number>, axes: readonly Axis[] = []): Uint8Array {
    return this.cut(file, axes, webFlags, (input, add) => {
      add(this.call.hb_subset_input_unicode_set!(input), codePoints)
      // Every feature: which ones text asks for is said beside the file.
      const features = this.call.hb_subset_input_set!(input, layoutFeatures)
      this.call.hb_set_clear!(features)
      this.call.hb_set_invert!(features)
    })
  }

  /** A file of one form at a place on the axes of a variable one, with all that it has; null where it cannot be cut. */
  instance(file: Uint8Array, axes: readonly Axis[]): Uint8Array | null {
    const cut = this.cut(file, axes, 0, input => this.call.hb_subset_input_keep_everything!(input))
    return cut === file ? null : cut
  }

  private cut(
    file: Uint8Array,
    axes: readonly Axis[],
    how: number,
    choose: (input: number, add: (set: number, values: Iterable<number>) => void) => void,
  ): Uint8Array {
    const { call } = this
    const place = call.malloc!(file.length)
    new Uint8Array(this.memory.buffer).set(file, place)
    const blob = call.hb_blob_create!(place, file.length, 2, 0, 0)
    const face = call.hb_face_create!(blob, 0)
    const input = call.hb_subset_input_create_or_fail!()
    call.hb_subset_input_set_flags!(input, how)
    choose(input, (set, values) => {
      for (const value of values) call.hb_set_add!(set, value)
    })
    if (axes.length > 0) {
      // What is written knows no axes: the others stay where the font has them.
      call.hb_subset_input_pin_all_axes_to_default!(input, face)
      for (const axis of axes) call.hb_subset_input_pin_axis_location!(input, face, tagNumber(axis.tag), axis.value)
    }
    const made = call.hb_subset_or_fail!(face, input)
    let result = file
    if (made !== 0) {
      const cut = call.hb_face_reference_blob!(made)
      const length = call.hb_blob_get_length!(cut)
      const from = call.hb_blob_get_data!(cut, 0)
      if (length > 0) result = new Uint8Array(this.memory.buffer, from, length).slice()
      call.hb_blob_destroy!(cut)
      call.hb_face_destroy!(made)
    }
    call.hb_subset_input_destroy!(input)
    call.hb_face_destroy!(face)
    call.hb_blob_destroy!(blob)
    call.free!(place)
    return result
  }
}
