import { route } from '../../../../door'
import { remarksOf } from '../../../../store/remarks'
import { documentOf } from '../../../../work/requests'

/** What people said of a document, oldest first, with the answers. */
export default route('look', async (event, acting) => remarksOf(acting, (await documentOf(event, acting)).id))
