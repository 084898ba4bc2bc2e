/** So often within a minute may something end by itself: then there is more to it than bad luck. */
const most = 5
const minute = 60_000

/**
 * Starts something, and starts it again when it ends by itself, which is said. `gaveUp` is called when it ends too often,
 * or cannot be started again. Answers the process that is alive now, and how to stop watching.
 * @param {string} name
 * @param {import('node:child_process').ChildProcess} first the process as it was started
 * @param {() => Promise<import('node:child_process').ChildProcess>} again
 * @param {{ say: (line: string) => void, gaveUp: (why: string) => void, now?: () => number }} told
 */
export function keepAlive(name, first, again, { say, gaveUp, now = Date.now }) {
  /** @type {number[]} */
  let ends = []
  let watching = true
  let current = first
  const watch = child => {
    current = child
    child.once('exit', async (code, signal) => {
      if (!watching) return
      ends = [...ends.filter(at => now() - at < minute), now()]
      const how = signal ?? `code ${code}`
      if (ends.length > most) return gaveUp(`${name} ended ${ends.length} times within a minute (${how})`)
      say(`${name} ended by itself (${how}): it is started again`)
      try {
        watch(await again())
      } catch (error) {
        gaveUp(`${name} could not be started again: ${error instanceof Error ? error.message : error}`)
      }
    })
  }
  watch(first)
  return {
    get child() {
      return current
    },
    stop() {
      watching = false
    },
  }
}
