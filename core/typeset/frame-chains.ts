import type { Frame } from '../document/story-model'

/** Frames whose text runs on from one to the next (draw:chain-next-name, ODF 1.4 part 3, 19.123). */
export class FrameChains {
  private readonly chains = new Map<Frame, readonly Frame[]>()

  /** @param nextName the name a frame's text box gives for its follower, '' for none */
  constructor(frames: readonly Frame[], nextName: (frame: Frame) => string) {
    const byName = new Map(frames.map(frame => [`${frame.part}|${frame.name}`, frame]))
    const next = new Map<Frame, Frame>()
    const followers = new Set<Frame>()
    for (const frame of frames) {
      const name = nextName(frame)
      const follower = name === '' ? undefined : byName.get(`${frame.part}|${name}`)
      if (follower && follower !== frame && !followers.has(follower)) {
        next.set(frame, follower)
        followers.add(follower)
      }
    }
    for (const head of next.keys()) {
      if (followers.has(head)) continue
      const chain: Frame[] = []
      for (let at: Frame | undefined = head; at && !chain.includes(at); at = next.get(at)) chain.push(at)
      for (const frame of chain) this.chains.set(frame, chain)
    }
  }

  /** All frames of the chain a frame is in, first to last; null where it stands alone. */
  of(frame: Frame): readonly Frame[] | null {
    return this.chains.get(frame) ?? null
  }
}
