/** What came of sending a file. */
export interface Sent {
  readonly status: number
  /** The answer as text; '' where the connection was lost. */
  readonly text: string
  /** Seconds after which it may be sent again, where the desk had too much to do; else null. */
  readonly retry: number | null
}

/** Sends a file to the shelf. `told` hears how much of it is there, from 0 to 1. */
export function send(file: File, told: (progress: number) => void): Promise<Sent> {
  return new Promise(resolve => {
    // A request that tells how far it is: fetching cannot.
    const request = new XMLHttpRequest()
    request.open('POST', `/api/documents?name=${encodeURIComponent(file.name)}`)
    request.upload.onprogress = ({ loaded, total }) => told(total > 0 ? loaded / total : 0)
    request.onloadend = () => {
      const wait = Number(request.getResponseHeader('retry-after'))
      const busy = request.status === 429 || request.status === 503
      resolve({ status: request.status, text: request.responseText, retry: busy ? Math.max(1, wait || 1) : null })
    }
    request.send(file)
  })
}
