import type { Shade } from '../../typeset/shades'

/** A shading of its unit axis or circle (ISO 32000-2, 8.7.4.5), stitched of two colours each (7.10.4). */
export function shadingOf({ kind, stops }: Shade) {
  const colour = (color: string) => [1, 3, 5].map(at => Number.parseInt(color.slice(at, at + 2), 16) / 255)
  const ends = [{ at: 0, color: stops[0]!.color }, ...stops, { at: 1, color: stops.at(-1)!.color }]
  const pieces = ends
    .slice(1)
    .flatMap((stop, index) => (stop.at > ends[index]!.at ? [{ from: ends[index]!, to: stop }] : []))
  return {
    ShadingType: kind === 'linear' ? 2 : 3,
    ColorSpace: 'DeviceRGB',
    Coords: kind === 'linear' ? [0, 0, 1, 0] : [0, 0, 0, 0, 0, 1],
    Extend: [true, true],
    Function: {
      FunctionType: 3,
      Domain: [0, 1],
      Bounds: pieces.slice(1).map(piece => piece.from.at),
      Encode: pieces.flatMap(() => [0, 1]),
      Functions: pieces.map(piece => ({
        FunctionType: 2,
        Domain: [0, 1],
        C0: colour(piece.from.color),
        C1: colour(piece.to.color),
        N: 1,
      })),
    },
  }
}
