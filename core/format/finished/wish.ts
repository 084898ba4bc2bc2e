import { z } from 'zod'

const page = z.int().min(1).max(100_000)
/** Points; pages may be large, and things may lie a little off them. */
const length = z.number().min(-20_000).max(20_000)

/** Text that is added to a page: where (from the page's top left, in points) and in what. */
export const addTextSchema = z.strictObject({
  type: z.literal('add-text'),
  page,
  x: length,
  y: length,
  width: z.number().min(1).max(20_000).nullable(),
  height: z.number().min(1).max(20_000).nullable(),
  text: z.string().min(1).max(20_000),
  family: z.string().trim().min(1).max(200),
  size: z.number().min(0.1).max(2000),
  leading: z.number().min(0.1).max(5000).nullable(),
  weight: z.int().min(1).max(1000),
  italic: z.boolean(),
  color: z.string().regex(/^#[0-9a-f]{6}$/i),
  language: z.string().max(35),
})

/** Words of a line that are put right, by where they stand. */
export const putRightSchema = z.strictObject({
  type: z.literal('put-right'),
  page,
  line: z.int().min(0).max(200_000),
  from: z.int().min(0).max(1_000_000),
  to: z.int().min(0).max(1_000_000),
  words: z.string().max(2_000),
})

/** What may be done to a finished PDF. */
export const finishedChangeSchema = z.discriminatedUnion('type', [addTextSchema, putRightSchema])
/** So many are made at once. */
export const finishedChangesSchema = z.array(finishedChangeSchema).min(1).max(500)
export type WishedChange = z.infer<typeof finishedChangeSchema>

/** What of a line changes when it becomes another: the shortest stretch; null where nothing does. Letters stay whole. */
export function changedStretch(
  line: string,
  becomes: string,
): { readonly from: number; readonly to: number; readonly words: string } | null {
  if (line === becomes) return null
  const isLow = (text: string, at: number) => /[\uDC00-\uDFFF]/.test(text.charAt(at))
  let from = 0
  while (from < Math.min(line.length, becomes.length) && line[from] === becomes[from]) from++
  if (isLow(line, from) || isLow(becomes, from)) from--
  let [to, end] = [line.length, becomes.length]
  while (to > from && end > from && line[to - 1] === becomes[end - 1]) {
    to--
    end--
  }
  if (isLow(line, to) || isLow(becomes, end)) {
    to++
    end++
  }
  return { from, to, words: becomes.slice(from, end) }
}
