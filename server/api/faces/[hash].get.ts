import { getRouterParam, setHeader } from 'h3'
import { database } from '../../store/database'
import { faceFile } from '../../store/faces'
import { answer, refusal } from '../../work/answer'

/** A face's file. It is named by its content, so it never changes. */
export default answer(async event => {
  const hash = getRouterParam(event, 'hash') ?? ''
  const bytes = /^[0-9a-f]{64}$/.test(hash) ? await faceFile(await database(), hash) : undefined
  if (!bytes) throw refusal(404, 'The library has no such face.')
  setHeader(event, 'Content-Type', 'font/ttf')
  setHeader(event, 'Cache-Control', 'public, max-age=31536000, immutable')
  return Buffer.from(bytes)
})
