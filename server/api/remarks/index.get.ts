import { route } from '../../door'
import { remarksForMe } from '../../store/remarks'

/** Open remarks that are given to whoever asks, over all documents. */
export default route('look', (_event, acting) => remarksForMe(acting))
