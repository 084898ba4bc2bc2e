import { pinsSchema } from '../../../../shared/ways'
import { route } from '../../../door'
import { setPins } from '../../../store/ways'
import { bodyOf, documentOf } from '../../../work/requests'

/** Gives keys to styles of a document, for whoever asks alone. */
export default route('look', async (event, acting) => {
  await setPins(acting, (await documentOf(event, acting)).id, await bodyOf(event, pinsSchema))
  return { done: true }
})
