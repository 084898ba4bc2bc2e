import type { Knex } from 'knex'
import { addedFaces, faceFile } from '../store/faces'
import { standInsFor } from '../store/stand-ins'
import { layReady, liesReady } from '../library/added'
import type { TypeSetting } from './tasks'

/**
 * What a document's text is set with beside the faces that ship; undefined where that is nothing. Its files are
 * laid ready for the threads.
 */
export async function settingFor(
  knex: Knex,
  document: { readonly id: string; readonly folder: string | null },
): Promise<TypeSetting | undefined> {
  const [faces, standIns] = [await addedFaces(knex), await standInsFor(knex, document)]
  if (faces.length === 0 && standIns.length === 0) return undefined
  for (const { hash } of faces) {
    const bytes = liesReady(hash) ? undefined : await faceFile(knex, hash)
    if (bytes) layReady(hash, bytes)
  }
  return { faces, standIns }
}
