import { createError, isError, type H3Error } from 'h3'
import { ZodError } from 'zod'
import { PackageError } from '../../core/package/errors'
import { ConflictError } from '../store/versions'
import { isAway } from '../store/database'
import { log, wordsOf } from './log'
import { TaskError } from './pool'

/** When it is worth while to ask again, in seconds. */
export const retryAfter = 3

/** An error with a sentence for people; what else a program needs is in `data`. */
export function refusal(statusCode: number, message: string, data: Record<string, unknown> = {}): H3Error {
  return createError({
    statusCode,
    statusMessage:
      statusCode === 404
        ? 'Not Found'
        : statusCode === 409
          ? 'Conflict'
          : statusCode === 413
            ? 'Content Too Large'
            : 'Refused',
    message,
    data: { message, ...data },
  })
}

/** That a document was changed meanwhile, and by whom: nothing was overwritten. */
export function changedMeanwhile({ since, current }: ConflictError, who = 'Somebody'): H3Error {
  const what = since.map(version => `“${version.title}”`).join(', ')
  return refusal(
    409,
    `${who} changed this document meanwhile: ${what}. Your change was not applied, and what is there is kept. Look at it, then ` +
      'plan again.',
    { current, since },
  )
}

/** Any error as one that comes out as a sentence. */
export function asRefusal(error: unknown): unknown {
  if (error instanceof PackageError)
    return refusal(error.fault === 'too-large' ? 413 : 422, error.message, { fault: error.fault })
  if (error instanceof TaskError) {
    const { name, fault, message } = error.failure
    if (name === 'PackageError') return refusal(fault === 'too-large' ? 413 : 422, message, { fault })
    return refusal(name === 'Error' ? 500 : 422, message, name === 'MayNotEmbed' ? { fault: 'may-not-embed' } : {})
  }
  if (error instanceof ConflictError) return changedMeanwhile(error)
  if (isAway(error))
    return refusal(
      503,
      'The desk cannot reach its database just now. Nothing was changed; it goes on by itself when it is back.',
      {
        retry: retryAfter,
      },
    )
  if (error instanceof ZodError)
    return refusal(
      400,
      `The request cannot be read: ${error.issues[0]?.path.join('.') ?? ''} ${error.issues[0]?.message ?? ''}. Nothing was changed.`,
    )
  if (isError(error) && !error.unhandled) return error
  log.error({ what: wordsOf(error) }, 'an answer failed')
  return refusal(
    500,
    'Something went wrong inside the desk. Nothing was changed; whoever runs it finds more in its log.',
  )
}
