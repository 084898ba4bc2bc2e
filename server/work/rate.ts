import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible'
import type { Right } from '../../shared/rights'
import { refusal } from './answer'

/** How many requests somebody may make within ten seconds: to look, and to do anything else. */
const within = 10
const most = { look: 1500, rest: 400 } as const

/** `MORPHENE_RATE` makes all of it more or less: a factor; `off` where a proxy in front counts. */
function factor(): number | null {
  const said = process.env.MORPHENE_RATE
  if (said === 'off') return null
  const number = Number(said ?? 1)
  return Number.isFinite(number) && number > 0 ? number : 1
}

/**
 * Counts what each asks, so that a program that went wild is told to wait and others are not held up. Far more is let
 * through than a person at a desk can ask for.
 */
export class Rate {
  private readonly limiters: Readonly<Record<keyof typeof most, RateLimiterMemory>> | null

  constructor(by: number | null = factor()) {
    const limiter = (points: number) => new RateLimiterMemory({ points: Math.ceil(points * by!), duration: within })
    this.limiters = by === null ? null : { look: limiter(most.look), rest: limiter(most.rest) }
  }

  /**
   * Counts a request of somebody.
   * @param who whoever asks: a person at an address
   * @throws 429 as a sentence, with the seconds to wait as `retry`
   */
  async count(who: string, right: Right): Promise<void> {
    try {
      await this.limiters?.[right === 'look' ? 'look' : 'rest'].consume(who)
    } catch (error) {
      if (!(error instanceof RateLimiterRes)) throw error
      const retry = Math.max(1, Math.ceil(error.msBeforeNext / 1000))
      throw refusal(
        429,
        `More was asked of this desk than anybody can look at. Nothing was changed; ask again in ${retry} s.`,
        { retry },
      )
    }
  }
}
