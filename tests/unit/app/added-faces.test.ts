import { beforeEach, describe, expect, it } from 'vitest'
import { useAddedFaces } from '../../../app/stores/added-faces'
import { useLibrary } from '../../../app/stores/library'
import { shippedFaces } from '../../../server/library/shipped'
import { appGlobals } from '../../support/app-globals'

let asked: string[] = []
let hold: Promise<void> | null = null
const faces = shippedFaces()
  .slice(0, 3)
  .map(({ face }) => ({ ...face, source: 'added' as const }))
const file = (name: string) => ({ name }) as File

beforeEach(() => {
  asked = []
  hold = null
  appGlobals(async (path, options) => {
    const { method = 'GET' } = (options ?? {}) as { method?: string }
    asked.push(`${method} ${path}`)
    await hold
    if (path.includes('bad'))
      throw Object.assign(new Error('no'), { data: { message: 'This is no font. It was not added.' } })
    if (path === '/api/census') return { families: [{ value: 'Lora', documents: [{ id: 'a' }, { id: 'b' }] }] }
    if (path.startsWith('/api/shelf?ids=a,b'))
      return {
        cards: [
          { id: 'a', title: 'Menu' },
          { id: 'b', title: 'Card' },
        ],
      }
    if (path === '/api/faces') return faces
    return { added: path.includes('twice') ? 0 : 1 }
  })
})

describe('faces that are added', () => {
  it('come one after the other; what is no font is passed over, and a bad one harms no other', async () => {
    const added = useAddedFaces()
    await added.add([file('One.ttf'), file('read me.txt'), file('bad.otf'), file('Two.WOFF2'), file('All.ttc')])
    expect(asked).toEqual([
      'POST /api/faces?name=One.ttf',
      'POST /api/faces?name=bad.otf',
      'POST /api/faces?name=Two.WOFF2',
      'POST /api/faces?name=All.ttc',
      'GET /api/faces',
    ])
    expect(added.said).toBe('3 faces added; 1 file refused.')
    expect(added.refused.map(each => each.name)).toEqual(['bad.otf'])
    expect(added.progress).toBeNull()
    expect(useLibrary().library?.faces).toHaveLength(3)
  })

  it('that are there already are told, and no font among files is a mistake', async () => {
    const added = useAddedFaces()
    await added.add([file('twice.ttf')])
    expect(added.said).toMatch(/^No face was added/)
    expect(asked).toHaveLength(1)
    await added.add([file('notes.pdf')])
    expect(added.failure).toMatch(/no font file among what was chosen/)
    expect(asked).toHaveLength(1)
  })

  it('can be stopped on their way', async () => {
    const added = useAddedFaces()
    let go = () => {}
    hold = new Promise(resolve => {
      go = resolve
    })
    const adding = added.add([file('One.ttf'), file('Two.ttf'), file('Three.ttf')])
    expect(added.progress).toEqual({ done: 0, all: 3 })
    added.stop()
    go()
    await adding
    expect(asked.filter(each => each.startsWith('POST'))).toHaveLength(1)
    expect(added.said).toBe('1 face added, then it was stopped.')
  })

  it('are taken out again, those alone that were added, and what names them is told', async () => {
    const added = useAddedFaces()
    expect(await added.naming('lora')).toEqual({
      count: 2,
      documents: [
        { id: 'a', title: 'Menu' },
        { id: 'b', title: 'Card' },
      ],
    })
    expect(await added.naming('Nobody')).toEqual({ count: 0, documents: [] })
    asked = []
    await added.takeOut([faces[0]!, { ...faces[1]!, source: 'shipped' }])
    expect(asked).toEqual([`DELETE /api/faces/${faces[0]!.hash}`, 'GET /api/faces'])
    expect(added.said).toMatch(/^1 face of .* taken out of the library\. No file was changed\.$/)
  })
})
