import { route } from '../../../door'
import { pinsOf } from '../../../store/ways'
import { documentOf } from '../../../work/requests'

/** The keys that whoever asks gave to styles of a document. */
export default route(
  'look',
  async (event, acting) => (await pinsOf(acting, (await documentOf(event, acting)).id)) ?? {},
)
