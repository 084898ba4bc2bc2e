import { route } from '../door'
import { printingConditions } from '../library/printing'

/** The printing conditions that a PDF can be made for here. */
export default route('look', () => Promise.resolve(printingConditions()))
