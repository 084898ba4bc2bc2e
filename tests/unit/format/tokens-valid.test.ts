import { defineConfig, parse } from '@terrazzo/parser'
import { describe, expect, it } from 'vitest'
import { ownPalettes } from '../../../core/house/own-palettes'
import { paletteToTokens } from '../../../core/house/palette'
import { houseToTokens } from '../../../core/house/tokens'
import { toTokens } from '../../../core/pairing/kept-pair'
import { stylesToTokens } from '../../../core/format/styles/tokens'
import { saltmereLine, winterService } from '../../../demo/houses'
import { sailingGuide } from '../../../demo/sailing-guide'
import { seasonReview } from '../../../demo/season-review'
import { session } from '../../support/fixtures'

const rules = ['color', 'dimension', 'font-family', 'font-weight', 'number', 'typography']
const config = defineConfig(
  { lint: { rules: Object.fromEntries(rules.map(rule => [`core/valid-${rule}`, 'error'])) } },
  { cwd: new URL('file:///tokens/') },
)

/** The tokens that a reader of the format that is not ours finds in a file; it throws where one is not as the format has it. */
async function readByOthers(
  src: string,
): Promise<Record<string, { readonly $type: string; readonly $value: unknown }>> {
  const { tokens } = await parse([{ filename: new URL('file:///tokens/tokens.json'), src }], { config })
  return tokens
}

describe('token files, read by another’s reader of the format', () => {
  it.each<readonly [string, string]>([
    ['a house', houseToTokens(saltmereLine)],
    ['a house for winter', houseToTokens(winterService)],
    ['the styles of a text', stylesToTokens(session(sailingGuide()))],
    ['the styles of a deck', stylesToTokens(session(seasonReview()))],
    ['pairs', toTokens([{ name: 'Tern.Holm {night}', pair: { heading: 'A "b"', body: 'C', size: 10, ratio: 1.2 } }])],
    ...ownPalettes.map(({ name, palette }) => [`palette ${name}`, paletteToTokens(name, palette)] as const),
  ])('%s is as the format has it', async (_, text) => {
    expect(Object.keys(await readByOthers(text)).length).toBeGreaterThan(3)
  })

  it('follows aliases to the colours of the palette, and has sizes in the unit of the format', async () => {
    const tokens = await readByOthers(houseToTokens(saltmereLine))
    const types = Object.values(tokens).map(each => each.$type)
    for (const type of ['color', 'dimension', 'fontFamily', 'fontWeight', 'number']) expect(types).toContain(type)
    for (const { $type, $value } of Object.values(tokens))
      if ($type === 'color')
        expect($value).toMatchObject({ colorSpace: 'srgb', components: expect.any(Array) as unknown })
  })

  it('would be refused with a size that has no unit, a weight that is none, or an alias that leads nowhere', async () => {
    const wrong = (token: unknown) => readByOthers(JSON.stringify({ a: token }))
    await expect(wrong({ $type: 'dimension', $value: '12' })).rejects.toThrow()
    await expect(wrong({ $type: 'fontWeight', $value: 'heavyish' })).rejects.toThrow()
    await expect(wrong({ $type: 'color', $value: '{palette.none}' })).rejects.toThrow()
  })
})
