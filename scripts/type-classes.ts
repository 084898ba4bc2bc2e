/*
 * npm run type:classes: how the classes that the desk reads off outlines agree with those that others gave, and how likeness
 * in proportions finds faces that one designer drew to go together.
 */
import { catalogueOf } from '../core/font/catalogue'
import { classify, type TypeClass } from '../core/font/classify'
import { Library } from '../core/font/library'
import { inProportions } from '../core/font/likeness'
import { shippedFaces } from '../server/library/shipped'
import { byHand, labelledFamilies, type Category, type LabelledFamily } from './labelled-families'

const expected = {
  serif: ['serif', 'slab'],
  'sans-serif': ['sans'],
  monospace: ['monospaced'],
  handwriting: ['script', 'display'],
  display: ['display'],
} as const satisfies Record<Category, readonly TypeClass[]>

function table(title: string, families: readonly LabelledFamily[]): void {
  const judged = families.map(({ name, category, face }) => {
    const found = classify(face.measures).class
    return { name, category, found, right: (expected[category] as readonly string[]).includes(found) }
  })
  console.log(`\n${title}`)
  for (const category of Object.keys(expected) as Category[]) {
    const own = judged.filter(each => each.category === category)
    const strict = own.filter(each => each.found === expected[category][0]).length
    const more = category === 'handwriting' ? `; strictly script ${strict}` : ''
    console.log(`  ${category.padEnd(12)} ${own.filter(each => each.right).length} of ${own.length}${more}`)
  }
  for (const each of ['script', 'display'] as const) {
    const wrongly = judged.filter(
      one => one.found === each && !(expected[one.category] as readonly string[]).includes(each),
    )
    console.log(`  falsely ${each}: ${wrongly.length}${wrongly.map(one => ` ${one.name}`).join('')}`)
  }
  for (const { name, category, found } of judged.filter(each => !each.right))
    console.log(`    ${name}: ${category}, taken for ${found}`)
}

const { tunedOn, notTunedOn } = await labelledFamilies()
table('the half that nothing was tuned on', notTunedOn)
table('the half that limits were tuned on', tunedOn)

const shipped = catalogueOf(new Library(shippedFaces().map(each => each.face)))
const labels = byHand('shipped-classes.json') as Record<string, readonly TypeClass[]>
const known = shipped.filter(({ family }) => labels[family])
const wrong = known.filter(({ family, classed }) => !labels[family]!.includes(classed.class))
console.log(`\nfaces that ship: ${known.length - wrong.length} of ${known.length} as labelled by hand`)
for (const { family, classed } of wrong)
  console.log(`    ${family}: ${labels[family]!.join(' or ')}, taken for ${classed.class}`)

const pool = catalogueOf(new Library([...shippedFaces(), ...tunedOn, ...notTunedOn].map(each => each.face)))
console.log(`\ndrawn to go together: rank in proportions among ${pool.length} families`)
const siblings = byHand('siblings.json') as readonly (readonly [string, string])[]
const ranks = siblings.map(([one, other]) => {
  const given = pool.find(each => each.family === one)!.plain.measures
  const rank =
    pool
      .filter(each => each.family !== one)
      .map(each => ({ family: each.family, distance: inProportions(given, each.plain.measures).distance }))
      .sort((a, b) => a.distance - b.distance)
      .findIndex(each => each.family === other) + 1
  console.log(`  ${one.padEnd(18)} ${other.padEnd(22)} ${rank}`)
  return rank
})
const sorted = [...ranks].sort((a, b) => a - b)
const share = (rank: number) => `${((rank / pool.length) * 100).toFixed(1)} %`
console.log(`  median ${share(sorted[sorted.length >> 1]!)}, last ${share(sorted.at(-1)!)}`)
