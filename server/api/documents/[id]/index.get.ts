import type { DocumentInfo } from '../../../../shared/api'
import { route } from '../../../door'
import { findFolder, rightsInFolder } from '../../../store/folders'
import { signOffsOf } from '../../../store/sign-offs'
import { history, listVersions } from '../../../store/versions'
import { documentOf } from '../../../work/requests'

/** A document with its versions and what undo and redo would do. */
export default route('look', async (event, acting): Promise<DocumentInfo> => {
  const document = await documentOf(event, acting)
  const versions = await listVersions(acting, document.id)
  const folder = document.folder === null ? undefined : await findFolder(acting, document.folder)
  const signOffs = await signOffsOf(acting, document.id)
  const rights = await rightsInFolder(acting, document.folder)
  return { document, folder: folder ?? null, rights, versions, signOffs, history: history(versions) }
})
