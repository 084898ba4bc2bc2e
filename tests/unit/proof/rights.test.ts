import { describe, expect, it } from 'vitest'
import { Library } from '../../../core/font/library'
import { madeForNothing, type MadeFor, type NamedLicence } from '../../../core/font/held-licence'
import { DocumentSession } from '../../../core/session'
import { Typesetter } from '../../../core/typeset/look'
import { face, library, makeOdt, paragraphStyle, typesetter } from '../../support/fixtures'
import { foundBy, p } from './proofing'

/** A desk where Jost came without a word of its licence, and Spectral may not be embedded. */
const guarded = new Typesetter(
  new Library(
    library.faces.map(each =>
      each.family === 'Jost'
        ? { ...each, licence: 'not stated' }
        : each.family === 'Spectral'
          ? { ...each, licence: 'Harbour Type. This font may not be embedded.', embedding: 'restricted' as const }
          : each,
    ),
  ),
  typesetter.shaper,
)
const of = DocumentSession.open(
  makeOdt({
    faces: ['Jost', 'Spectral', 'Inter', 'Brannock'].map(name => face(name)).join(''),
    automatic: ['Jost', 'Spectral', 'Inter', 'Brannock']
      .map(name => paragraphStyle(name, `style:font-name="${name}"`))
      .join(''),
    body:
      p('In Jost', 'Jost') +
      p('More of it', 'Jost') +
      p('In Spectral', 'Spectral') +
      p('Open', 'Inter') +
      p('Gone', 'Brannock'),
  }),
  guarded,
)
const held = (more: Partial<NamedLicence>): NamedLicence => ({
  name: 'Harbour set',
  families: ['Jost'],
  uses: ['print', 'web page'],
  seats: null,
  until: null,
  holder: '',
  ...more,
})
const told = (madeFor: Partial<MadeFor>) =>
  foundBy('unlicensed', of, { madeFor: { ...madeForNothing, today: '2027-01-10', ...madeFor } }).map(
    ({ severity, says, text }) => [severity, says, text],
  )

describe('faces and what a document is made for', () => {
  it('tells nothing where nobody said what it is made for', () => {
    expect(told({})).toEqual([])
    expect(foundBy('unlicensed', of)).toEqual([])
  })

  it('tells what is not allowed as an error and what is left open as a warning, once for each family', () => {
    expect(told({ uses: ['print', 'PDF'] })).toEqual([
      ['warning', 'Jost is not said to be licensed for: print (the file says nothing)', 'In Jost'],
      ['warning', 'Spectral is not said to be licensed for: print (the file does not say)', 'In Spectral'],
      ['error', 'Spectral may not be used for: PDF (“This font may not be embedded”)', 'In Spectral'],
    ])
  })

  it('takes what a held licence allows, to its last day', () => {
    const jost = (madeFor: Partial<MadeFor>) => told(madeFor).filter(([, says]) => says!.includes('Jost'))
    const until = held({ until: '2027-01-10' })
    expect(jost({ uses: ['print'], licences: [until] })).toEqual([])
    expect(jost({ uses: ['PDF', 'app'], licences: [until] })).toHaveLength(1)
    expect(jost({ uses: ['print'], licences: [until], today: '2027-01-11' })).toEqual([
      ['error', 'the licence of Jost ended on 2027-01-10', 'In Jost'],
    ])
    // What the file itself forbids is told beside it.
    expect(
      told({ uses: ['PDF'], licences: [held({ families: ['Spectral'], uses: ['PDF'], until: '2026-01-01' })] })
        .filter(([, says]) => says!.includes('Spectral'))
        .map(([, says]) => says),
    ).toEqual([
      'the licence of Spectral ended on 2026-01-01',
      'Spectral may not be used for: PDF (“This font may not be embedded”)',
    ])
    // It has ended whatever the document is made for; another that holds takes its place.
    expect(jost({ licences: [until], today: '2027-01-11' })).toHaveLength(1)
    expect(jost({ uses: ['print'], licences: [until, held({ name: 'New set' })], today: '2027-01-11' })).toEqual([])
  })
})
