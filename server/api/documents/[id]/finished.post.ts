import { finishedBodySchema, type FinishedChanged, type FinishedTrial } from '../../../../shared/finished'
import { route } from '../../../door'
import { addVersion } from '../../../store/versions'
import { refusal } from '../../../work/answer'
import { threadsFor } from '../../../work/pool'
import { bodyOf, contentToChange } from '../../../work/requests'

/**
 * Adds text to a finished PDF or puts words of it right, on version `base`: one version, whose file begins with the bytes of
 * the one before. With `look` nothing is kept, and what would stand behind those bytes is answered.
 */
export default route('change', async (event, acting): Promise<FinishedTrial | FinishedChanged> => {
  const { base, changes, look } = await bodyOf(event, finishedBodySchema)
  const { document, content } = await contentToChange(event, acting, base)
  if (document.kind !== 'finished')
    throw refusal(422, 'This is no finished PDF: its text is changed where it stands. Nothing was changed.')
  const made = await threadsFor(acting).run({ kind: 'finished', ...content, changes })
  const { title, said, added, corrected, refused } = made
  if (look) {
    const behind = Buffer.from(made.bytes).subarray(content.bytes.length).toString('base64')
    return { title, said, added, corrected, refused, behind }
  }
  const version = await addVersion(acting, document.id, base, {
    madeBy: 'edit',
    title,
    content: { bytes: made.bytes, ids: {} },
    plan: null,
  })
  return { title, said, added, corrected, refused, version }
})
