import { atBodySchema } from '../../../shared/people'
import { route } from '../../door'
import { beAt, leave } from '../../store/presence'
import { refusal } from '../../work/answer'
import { bodyOf } from '../../work/requests'

/** Says which document one is at, or that one left it. Answers the ids of those who are there, too. */
export default route('look', async (event, acting): Promise<string[]> => {
  const { document, left } = await bodyOf(event, atBodySchema)
  if (left) {
    await leave(acting, document)
    return []
  }
  const others = await beAt(acting, document)
  if (!others) throw refusal(404, 'This document is not on the shelf. It may have been removed.')
  return others
})
