/** Presses that follow each other within this time and distance are one gesture: CSS pixels and milliseconds. */
const near = { time: 500, distance: 5 } as const

let last = { time: -Infinity, x: 0, y: 0, count: 0 }

/** The how manieth press of one gesture a press is: pointer events, unlike mouse events, do not say. */
export function clickCount({
  timeStamp,
  clientX,
  clientY,
}: Pick<PointerEvent, 'timeStamp' | 'clientX' | 'clientY'>): number {
  const goesOn = timeStamp - last.time < near.time && Math.hypot(clientX - last.x, clientY - last.y) < near.distance
  last = { time: timeStamp, x: clientX, y: clientY, count: goesOn ? last.count + 1 : 1 }
  return last.count
}
