import type { DocumentIds, OdfDocument } from '../../../core/document/open'
import { isPdf } from '../../../core/format/finished/sections'
import { PackageError } from '../../../core/package/errors'
import { DocumentSession } from '../../../core/session'
import { idRuns } from '../../../core/xml/write'
import { theTypesetter } from './kept'
import type { Content } from './task'

/** Ids of the nodes of changed parts, for the next session. */
export function documentIds(document: OdfDocument, before: DocumentIds): DocumentIds {
  const ids: Record<string, DocumentIds[string]> = { ...before }
  for (const [path, part] of document.parts) if (part.changed) ids[path] = idRuns(part)
  return ids
}

/** @throws PackageError where a finished PDF is asked for what only documents have that are set here */
export function refuseFinished(bytes: Uint8Array): void {
  if (isPdf(bytes))
    throw new PackageError(
      'finished',
      'This is a finished PDF: it has no styles and is not set here, so that cannot be done with it. Text is added to it and ' +
        'put right on its own pages. Nothing was changed.',
    )
}

/** Opens what a task is about. @throws PackageError */
export async function begin({ bytes, ids, setting }: Content): Promise<DocumentSession> {
  refuseFinished(bytes)
  return DocumentSession.start(bytes, theTypesetter(setting), { ids })
}

/** The same, without its pages. @throws PackageError */
export function beginPlain({ bytes, ids, setting }: Content): DocumentSession {
  refuseFinished(bytes)
  return DocumentSession.open(bytes, theTypesetter(setting), { ids })
}
