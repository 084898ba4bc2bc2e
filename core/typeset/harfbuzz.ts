/**
 * HarfBuzz, compiled to WebAssembly by the package harfbuzzjs, called directly: shaping a long document is millions of
 * glyphs, and an object for each would cost more than the shaping. Whoever runs core gives the module's bytes and the
 * machine's WebAssembly, since core itself knows neither files nor browsers.
 */

type Pointer = number
type Call = (...values: number[]) => number
interface WasmMemory {
  readonly buffer: ArrayBuffer
  grow: (pages: number) => number
}
interface WasmTable {
  readonly length: number
  grow: (by: number) => number
  set: (index: number, value: unknown) => void
}

/** Compiles and starts a WebAssembly module, and gives its exports. */
export type StartModule = (
  code: Uint8Array,
  imports: Record<string, Record<string, unknown>>,
) => Record<string, unknown>

export interface Feature {
  readonly tag: string
  readonly value: number
}
/** A place on a variable face's axis: tag and value on the axis's own scale (OpenType 1.9, fvar). */
export interface Axis {
  readonly tag: string
  readonly value: number
}

/** How a run is shaped. Script is an ISO 15924 code, language a BCP 47 tag or ''. */
export interface RunProperties {
  readonly rightToLeft: boolean
  readonly script: string
  readonly language: string
  readonly features: readonly Feature[]
}

/**
 * Glyphs of the last shaped run, in the machine's memory: good until the next call. Five numbers a glyph in each
 * view.
 */
export interface ShapedRun {
  readonly length: number
  /** Glyph id, flags, cluster, and two numbers for HarfBuzz alone. */
  readonly infos: Uint32Array
  /** x advance, y advance, x offset, y offset in font units, and one number for HarfBuzz alone. */
  readonly positions: Int32Array
}

/** Flag of HarfBuzz: the text cannot be cut in front of this glyph's cluster without changing shapes. */
export const unsafeToBreak = 1

/** A face ready for shaping. */
export interface FontHandle {
  readonly pointer: Pointer
  readonly face: Pointer
  readonly blob: Pointer
  readonly file: Pointer
  readonly unitsPerEm: number
  readonly features: ReadonlySet<string>
  readonly kerning: ReadonlyMap<number, number> | null
}

const readOnlyCopy = 1
const gsub = 0x47535542
const gpos = 0x47504f53

/** A tag of OpenType as HarfBuzz takes it. */
export const tagNumber = (tag: string): number =>
  ((tag.charCodeAt(0) << 24) | (tag.charCodeAt(1) << 16) | (tag.charCodeAt(2) << 8) | tag.charCodeAt(3)) >>> 0

/**
 * Kerns as HarfBuzz does by the same table: half of a pair's value before the right glyph, half behind the left
 * one.
 */
function kern({ length, infos, positions }: ShapedRun, pairs: ReadonlyMap<number, number>): void {
  for (let glyph = 0; glyph + 1 < length; glyph++) {
    const value = pairs.get(infos[glyph * 5]! * 65536 + infos[glyph * 5 + 5]!)
    if (value === undefined || value === 0) continue
    const first = value >> 1
    const second = value - first
    positions[glyph * 5]! += first
    positions[glyph * 5 + 5]! += second
    positions[glyph * 5 + 7]! += second
    infos[glyph * 5 + 6]! |= unsafeToBreak
  }
}

export class HarfBuzz {
  private readonly call: Readonly<Record<string, Call>>
  private readonly memory: WasmMemory
  private readonly table: WasmTable
  private readonly buffer: Pointer
  private readonly languages = new Map<string, Pointer>()
  private readonly featureLists = new WeakMap<readonly Feature[], Pointer>()
  /** Room for text on its way in. */
  private text: Pointer = 0
  private textRoom = 0
  private drawing: { functions: Pointer; path: string[] } | null = null

  constructor(
    private readonly start: StartModule,
    code: Uint8Array,
  ) {
    let memory: WasmMemory | null = null
    const grow = (size: number): number => {
      const wanted = size >>> 0
      const now = memory!.buffer.byteLength
      if (wanted > 0x7fff0000) return 0
      try {
        memory!.grow(Math.ceil((Math.max(wanted, now * 1.25) - now) / 65536))
        return 1
      } catch {
        return 0
      }
    }
    const fail = () => {
      throw new Error('the shaping engine stopped')
    }
    const exports = start(code, {
      env: {
        _emscripten_runtime_keepalive_clear: () => {},
        _abort_js: fail,
        _setitimer_js: () => 0,
        emscripten_resize_heap: grow,
      },
      wasi_snapshot_preview1: { proc_exit: fail },
    })
    this.memory = memory = exports.memory as WasmMemory
    this.table = exports.__indirect_function_table as WasmTable
    this.call = exports as Record<string, Call>
    this.call.__wasm_call_ctors!()
    this.buffer = this.call.hb_buffer_create!()
  }

  /** Reads a font file; null where it holds no glyphs. */
  load(bytes: Uint8Array, axes: readonly Axis[] = []): FontHandle | null {
    const { call } = this
    const place = call.malloc!(bytes.length)
    new Uint8Array(this.memory.buffer).set(bytes, place)
    const blob = call.hb_blob_create!(place, bytes.length, readOnlyCopy, 0, 0)
    const face = call.hb_face_create!(blob, 0)
    const unitsPerEm = call.hb_face_get_upem!(face)
    if (unitsPerEm === 0) return null
    const pointer = call.hb_font_create!(face)
    call.hb_font_set_scale!(pointer, unitsPerEm, unitsPerEm)
    if (axes.length > 0) {
      const list = call.malloc!(axes.length * 8)
      const view = new DataView(this.memory.buffer)
      axes.forEach((axis, index) => {
        view.setUint32(list + index * 8, tagNumber(axis.tag), true)
        view.setFloat32(list + index * 8 + 4, axis.value, true)
      })
      call.hb_font_set_variations!(pointer, list, axes.length)
      call.free!(list)
    }
    return {
      pointer,
      face,
      blob,
      file: place,
      unitsPerEm,
      features: this.featureTags(face, gsub),
      kerning: this.featureTags(face, gpos).has('kern') ? null : this.oldKerning(face),
    }
  }

  /** Lets go of a font and its file. */
  unload(font: FontHandle): void {
    this.call.hb_font_destroy!(font.pointer)
    this.call.hb_face_destroy!(font.face)
    this.call.hb_blob_destroy!(font.blob)
    this.call.free!(font.file)
  }

  /**
   * Pairs of the table kern (OpenType 1.9, kern, format 0), by left glyph times 65536 and right glyph: what faces
   * without GPOS kern by. This build of HarfBuzz passes it over.
   */
  private oldKerning(face: Pointer): ReadonlyMap<number, number> | null {
    const { call } = this
    const blob = call.hb_face_reference_table!(face, tagNumber('kern'))
    const length = call.hb_blob_get_length!(blob)
    const table = new DataView(
      this.memory.buffer.slice(call.hb_blob_get_data!(blob, 0), call.hb_blob_get_data!(blob, 0) + length),
    )
    call.hb_blob_destroy!(blob)
    if (length < 4 || table.getUint16(0) !== 0) return null
    const pairs = new Map<number, number>()
    let at = 4
    for (let index = 0; index < table.getUint16(2) && at + 14 <= length; index++) {
      const coverage = table.getUint16(at + 4)
      // Horizontal kerning of format 0, neither minimum values nor across the line.
      if (coverage >> 8 === 0 && (coverage & 7) === 1) {
        const count = Math.min(table.getUint16(at + 6), Math.floor((length - at - 14) / 6))
        for (let pair = 0; pair < count; pair++) {
          const entry = at + 14 + pair * 6
          pairs.set(table.getUint16(entry) * 65536 + table.getUint16(entry + 2), table.getInt16(entry + 4))
        }
      }
      at += Math.max(table.getUint16(at + 2), 14)
    }
    return pairs.size > 0 ? pairs : null
  }

  private featureTags(face: Pointer, table: number): ReadonlySet<string> {
    const room = 256
    const count = this.call.malloc!(4 + room * 4)
    new Uint32Array(this.memory.buffer, count, 1)[0] = room
    this.call.hb_ot_layout_table_get_feature_tags!(face, table, 0, count, count + 4)
    const found = new Uint32Array(this.memory.buffer, count, 1)[0]!
    const tags = new Set(
      [...new Uint32Array(this.memory.buffer, count + 4, Math.min(found, room))].map(tag =>
        String.fromCharCode(tag >>> 24, (tag >> 16) & 255, (tag >> 8) & 255, tag & 255),
      ),
    )
    this.call.free!(count)
    return tags
  }

  private ascii(text: string): Pointer {
    const place = this.call.malloc!(text.length + 1)
    const view = new Uint8Array(this.memory.buffer, place, text.length + 1)
    for (let at = 0; at < text.length; at++) view[at] = text.charCodeAt(at)
    view[text.length] = 0
    return place
  }

  private language(tag: string): Pointer {
    let pointer = this.languages.get(tag)
    if (pointer === undefined) {
      const place = this.ascii(tag)
      pointer = this.call.hb_language_from_string!(place, -1)
      this.call.free!(place)
      this.languages.set(tag, pointer)
    }
    return pointer
  }

  private featureList(features: readonly Feature[]): Pointer {
    if (features.length === 0) return 0
    let list = this.featureLists.get(features)
    if (list === undefined) {
      list = this.call.malloc!(features.length * 16)
      const view = new Uint32Array(this.memory.buffer, list, features.length * 4)
      features.forEach((feature, index) => {
        view.set([tagNumber(feature.tag), feature.value, 0, 0xffffffff], index * 4)
      })
      this.featureLists.set(features, list)
    }
    return list
  }

  /** Where text of some length is to be put before `shape`: UTF-16 units. Good until memory grows; write at once. */
  room(length: number): Uint16Array {
    if (length > this.textRoom) {
      if (this.text !== 0) this.call.free!(this.text)
      this.textRoom = Math.max(length, 8192)
      this.text = this.call.malloc!(this.textRoom * 2)
    }
    return new Uint16Array(this.memory.buffer, this.text, length)
  }

  /** Shapes the first `length` units of what was put into `room`. Clusters are UTF-16 offsets. */
  shape(font: FontHandle, length: number, run: RunProperties): ShapedRun {
    const { call, buffer } = this
    call.hb_buffer_clear_contents!(buffer)
    call.hb_buffer_add_utf16!(buffer, this.text, length, 0, length)
    call.hb_buffer_set_direction!(buffer, run.rightToLeft ? 5 : 4)
    call.hb_buffer_set_script!(buffer, tagNumber(run.script))
    if (run.language !== '') call.hb_buffer_set_language!(buffer, this.language(run.language))
    call.hb_buffer_guess_segment_properties!(buffer)
    call.hb_shape!(font.pointer, buffer, this.featureList(run.features), run.features.length)
    const count = call.hb_buffer_get_length!(buffer)
    const infos = call.hb_buffer_get_glyph_infos!(buffer, 0)
    const positions = call.hb_buffer_get_glyph_positions!(buffer, 0)
    const shaped = {
      length: count,
      infos: new Uint32Array(this.memory.buffer, infos, count * 5),
      positions: new Int32Array(this.memory.buffer, positions, count * 5),
    }
    if (font.kerning !== null && !run.features.some(feature => feature.tag === 'kern' && feature.value === 0))
      kern(shaped, font.kerning)
    return shaped
  }

  /** The glyph of a single character and its advance in font units, or null where the face lacks it. */
  nominal(font: FontHandle, codePoint: number): { readonly glyph: number; readonly advance: number } | null {
    const place = this.call.malloc!(4)
    const has = this.call.hb_font_get_nominal_glyph!(font.pointer, codePoint, place)
    const glyph = new Uint32Array(this.memory.buffer, place, 1)[0]!
    this.call.free!(place)
    return has ? { glyph, advance: this.call.hb_font_get_glyph_h_advance!(font.pointer, glyph) } : null
  }

  /** A glyph's own advance in font units. */
  glyphAdvance(font: FontHandle, glyph: number): number {
    return this.call.hb_font_get_glyph_h_advance!(font.pointer, glyph)
  }

  /** A glyph's outline as SVG path data in font units, y up. */
  outline(font: FontHandle, glyph: number): string {
    const { functions, path } = (this.drawing ??= this.drawFunctions())
    path.length = 0
    this.call.hb_font_draw_glyph!(font.pointer, glyph, functions, 0)
    return path.join('')
  }

  private drawFunctions(): { functions: Pointer; path: string[] } {
    const path: string[] = []
    const functions = this.call.hb_draw_funcs_create!()
    const round = (value: number) => Math.round(value * 10) / 10
    // Callbacks get the draw functions, data and state first, and the user data last; points stand between.
    const add = (name: string, letter: string, points: number) => {
      const callback = (...values: number[]): void => {
        path.push(
          letter +
            values
              .slice(3, 3 + points * 2)
              .map(round)
              .join(' '),
        )
      }
      this.call[`hb_draw_funcs_set_${name}_func`]!(functions, this.callable(callback, points * 2), 0, 0)
    }
    add('move_to', 'M', 1)
    add('line_to', 'L', 1)
    add('quadratic_to', 'Q', 2)
    add('cubic_to', 'C', 3)
    add('close_path', 'Z', 0)
    return { functions, path }
  }

  /**
   * A function as HarfBuzz can call it: wrapped in a module of its own, since a table holds WebAssembly functions
   * alone.
   */
  private callable(callback: (...values: number[]) => void, floats: number): number {
    const i32 = 0x7f
    const parameters = [i32, i32, i32, ...Array.from({ length: floats }, () => 0x7d), i32]
    const type = [0x60, parameters.length, ...parameters, 0]
    const code = Uint8Array.from([
      0,
      0x61,
      0x73,
      0x6d,
      1,
      0,
      0,
      0,
      1,
      type.length + 1,
      1,
      ...type,
      2,
      7,
      1,
      1,
      0x65,
      1,
      0x66,
      0,
      0,
      7,
      5,
      1,
      1,
      0x66,
      0,
      0,
    ])
    const { f } = this.start(code, { e: { f: callback } })
    const index = this.table.grow(1)
    this.table.set(index, f)
    return index
  }
}
