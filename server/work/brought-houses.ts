import type { House } from '../../core/house/house'
import { houseToTokens } from '../../core/house/tokens'
import type { Acting } from '../store/acting'
import { addHouse, issuedHouse, issueHouse, linkHouse, listHouses } from '../store/houses'

/** A house that came: its id here, null where it is not kept or another one has its name; and what is told of it. */
interface Brought {
  readonly id: string | null
  readonly told: string
}

/** Keeps a house, and issues it where whoever brings it may: only what was issued reaches documents. */
async function keep(acting: Acting, house: House): Promise<Brought> {
  const id = await addHouse(acting, house, null)
  if (id === null)
    return { id, told: `the house ${house.name} was not kept: there are as many houses as the desk keeps` }
  if (!acting.actor.rights.has('issue'))
    return {
      id,
      told: `a house came along: ${house.name}; whoever may issue versions does so before it is looked over by`,
    }
  await issueHouse(acting, id, 1)
  return { id, told: `a house came along: ${house.name}` }
}

/** A house stays as it is here where one has its name. */
async function bring(acting: Acting, house: House, here: string | undefined): Promise<Brought> {
  if (here === undefined) return keep(acting, house)
  const issued = await issuedHouse(acting, here)
  return issued && houseToTokens(issued) === houseToTokens(house)
    ? { id: here, told: `the house ${house.name} is here already, and the same` }
    : { id: null, told: `another house ${house.name} is here already: what came is not linked to it` }
}

/**
 * Takes in the houses of a zip. All documents of a bundle go by its one house: they are linked to it.
 * @returns what is told of each house
 */
export async function bringHouses(
  acting: Acting,
  houses: readonly House[],
  { isBundle, documents }: { readonly isBundle: boolean; readonly documents: readonly string[] },
): Promise<string[]> {
  const here = new Map((await listHouses(acting)).map(each => [each.name, each.id]))
  const told: string[] = []
  for (const house of houses) {
    const brought = await bring(acting, house, here.get(house.name))
    const links = isBundle && houses.length === 1 && brought.id !== null
    if (links) for (const document of documents) await linkHouse(acting, document, brought.id)
    told.push(links ? `${brought.told}; the documents are linked to it` : brought.told)
  }
  return told
}
