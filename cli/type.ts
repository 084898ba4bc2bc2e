import { existsSync, readdirSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { judgedOf } from '../core/font/catalogue'
import { faceName, type FaceRecord } from '../core/font/face'
import { inProportions, type Likeness } from '../core/font/likeness'
import { shippedFaces } from '../server/library/shipped'
import { checkFontFile } from '../server/library/font-file'
import { CommandError, fine, single, type Call, type Outcome } from './call'
import { read } from './files'
import { padded } from './report'

/** A face with the file that it was read from. */
interface Filed {
  readonly face: FaceRecord
  readonly file: string
}

/** As many font files are read in one call. */
const fileLimit = 20_000

function fontFilesBelow(path: string, depth = 0): string[] {
  if (!existsSync(path)) throw new CommandError(`there is no file or folder “${path}”`)
  if (!statSync(path).isDirectory()) return [path]
  return readdirSync(path, { withFileTypes: true })
    .sort((a, b) => a.name.localeCompare(b.name))
    .flatMap(entry => {
      const own = join(path, entry.name)
      if (entry.isDirectory()) return depth < 20 && !entry.name.startsWith('.') ? fontFilesBelow(own, depth + 1) : []
      return /\.(ttf|otf|ttc|otc|woff2?)$/i.test(entry.name) ? [own] : []
    })
}

const facesOf = async (file: string): Promise<Filed[]> =>
  (await checkFontFile(read(file))).map(({ face }) => ({ face, file }))

/** A face as the terminal and other programs get it. */
function described({ face, file }: Filed) {
  const { classed, fitness, licence } = judgedOf(face)
  return {
    family: face.family,
    style: face.style,
    file,
    class: classed.class,
    kind: classed.kind,
    margin: classed.margin,
    reasons: classed.reasons,
    fitness,
    measures: face.measures,
    licence,
  }
}

const table = (faces: readonly Filed[]) =>
  padded([
    ['face', 'class', 'kind', 'margin', 'x-height', 'stem', 'hairline', 'fit for'],
    ...faces.map(each => {
      const { class: typeClass, kind, margin, fitness, measures } = described(each)
      return [
        faceName(each.face.family, each.face.style),
        typeClass,
        kind,
        margin.toFixed(2),
        String(measures.xHeight),
        String(measures.stem),
        String(measures.hairline),
        fitness
          .filter(own => own.fit)
          .map(own => own.use)
          .join(', '),
      ]
    }),
  ]).join('\n')

function likest(faces: readonly Filed[], model: Filed, json: boolean): string {
  const ranked = faces
    .map(each => ({ ...each, likeness: inProportions(model.face.measures, each.face.measures) }))
    .sort((a, b) => a.likeness.distance - b.likeness.distance || a.file.localeCompare(b.file))
  if (json)
    return JSON.stringify(
      ranked.map(({ face, file, likeness: { distance, parts } }) => ({
        family: face.family,
        style: face.style,
        file,
        distance,
        parts,
      })),
      null,
      2,
    )
  const furthest = ({ parts }: Likeness) =>
    [...parts]
      .sort((a, b) => b.steps - a.steps)
      .slice(0, 2)
      .map(part => `${part.name} by ${part.steps.toFixed(1)}`)
      .join(', ')
  return [
    `in order of likeness in proportions to ${faceName(model.face.family, model.face.style)}, in steps that a reader sees`,
    ...padded(
      ranked.map(({ face, likeness }) => [
        likeness.distance.toFixed(2),
        faceName(face.family, face.style),
        `most apart in ${furthest(likeness)}`,
      ]),
    ),
  ].join('\n')
}

/** `type`: what faces are, by their measures; or in the order of their likeness to one. @throws CommandError */
export async function type(call: Call): Promise<Outcome> {
  const library = call.switches.has('--library')
  if (!library && call.files.length === 0)
    throw new CommandError('which font files? Name files or folders after the command, or say --library')
  const files = call.files.flatMap(path => fontFilesBelow(path))
  if (files.length > fileLimit) throw new CommandError(`${files.length} font files; one call takes ${fileLimit}`)
  const own: Filed[] = library ? shippedFaces().map(({ face, path }) => ({ face, file: path })) : []
  const faces = [...own]
  const failed: string[] = []
  for (const file of files) {
    try {
      faces.push(...(await facesOf(file)))
    } catch (error) {
      failed.push(`${file}: ${error instanceof Error ? error.message.replace(' It was not added.', '') : 'unreadable'}`)
    }
  }
  if (faces.length === 0) throw new CommandError(failed[0] ?? 'there is no font file in what was named')
  const json = call.switches.has('--json')
  const like = single(call, '--like')
  const text =
    like !== undefined
      ? likest(faces, (await facesOf(like))[0]!, json)
      : json
        ? JSON.stringify(faces.map(described), null, 2)
        : table(faces)
  if (failed.length === 0) return fine(text)
  return { text: json ? text : [text, ...failed.map(each => `not read: ${each}`)].join('\n'), code: 3 }
}
