import { route } from '../../../door'
import { houseStandIns, standInsOf } from '../../../store/stand-ins'
import { documentOf } from '../../../work/requests'

/** The stand-ins that hold for a document, by whose they are: the strongest first. */
export default route('look', async (event, acting) => {
  const document = await documentOf(event, acting)
  return {
    document: await standInsOf(acting, { level: 'document', id: document.id }),
    folder: document.folder === null ? [] : await standInsOf(acting, { level: 'folder', id: document.folder }),
    house: await houseStandIns(acting, document.house),
    desk: await standInsOf(acting, { level: 'desk' }),
  }
})
