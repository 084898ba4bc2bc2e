import { getRouterParam, setHeader } from 'h3'
import { route } from '../../door'
import { faceFile } from '../../store/faces'
import { refusal } from '../../work/answer'

/** A face's file. It is named by its content, so it never changes. */
export default route('fonts', async (event, acting) => {
  const hash = getRouterParam(event, 'hash') ?? ''
  const bytes = /^[0-9a-f]{64}$/.test(hash) ? await faceFile(acting, hash) : undefined
  if (!bytes) throw refusal(404, 'The library has no such face.')
  setHeader(event, 'Content-Type', 'font/ttf')
  setHeader(event, 'Cache-Control', 'public, max-age=31536000, immutable')
  return Buffer.from(bytes)
})
