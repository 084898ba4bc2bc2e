import { layListReady, layReady, liesReady, listLiesReady } from '../library/added'
import type { Acting } from '../store/acting'
import { addedFaces, faceFile, libraryState } from '../store/faces'
import { standInsFor } from '../store/stand-ins'
import type { TypeSetting } from './tasks/task'

/** The lists of added faces that lie ready, by owner, with the state of the library that they are of. */
const ready = new Map<string, { readonly state: number; readonly list: string | null }>()

/** Lays an owner's faces ready for the threads, where they have changed; null where none was added. */
async function listFor(acting: Acting): Promise<string | null> {
  const { owner } = acting.actor
  // The state is asked for first: faces that come meanwhile are taken along, and looked at again.
  const state = await libraryState(acting)
  const known = ready.get(owner)
  if (known?.state === state && (known.list === null || listLiesReady(known.list))) return known.list
  const faces = await addedFaces(acting)
  for (const { hash } of faces) {
    const bytes = liesReady(hash) ? undefined : await faceFile(acting, hash)
    if (bytes) layReady(hash, bytes)
  }
  const list = faces.length === 0 ? null : layListReady(faces)
  ready.set(owner, { state, list })
  return list
}

/**
 * What a document's text is set with beside the faces that ship; undefined where that is nothing. A task carries the
 * name of the list of faces: threads read the list once, and of its files only those that text is set in.
 */
export async function settingFor(
  acting: Acting,
  document: { readonly id: string; readonly folder: string | null; readonly house: string | null },
): Promise<TypeSetting | undefined> {
  const [faces, standIns] = [await listFor(acting), await standInsFor(acting, document)]
  return faces === null && standIns.length === 0 ? undefined : { faces, standIns }
}
