import { answer } from '../../../work/answer'
import { batchOf } from '../../../work/requests'

/** A plan over documents, with what it does to each and how far it is. */
export default answer(event => batchOf(event))
