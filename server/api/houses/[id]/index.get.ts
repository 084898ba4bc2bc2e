import { route } from '../../../door'
import { houseOf } from '../../../work/requests'

/** A house with its working state and its versions. */
export default route('look', (event, acting) => houseOf(event, acting))
