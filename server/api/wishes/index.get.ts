import { database } from '../../store/database'
import { listWishes } from '../../store/kept-wishes'
import { answer } from '../../work/answer'

/** Wishes that are kept, by name. */
export default answer(async () => listWishes(await database()))
