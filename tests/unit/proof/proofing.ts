import { proofOf, type ProofOptions } from '../../../core/proof/proof'
import { type Finding } from '../../../core/proof/finding'
import { repairWishes } from '../../../core/proof/repairs'
import { registry } from '../../../core/change/registry'
import type { DocumentSession } from '../../../core/session'
import { face, sessionOf, type Fixture } from '../../support/fixtures'
import { request } from '../../support/planning'

/** A small text whose letters are large enough, in a face that is here, in English unless it is told otherwise. */
export function textOf(body: string, more: Fixture & { readonly language?: string } = {}): DocumentSession {
  const [language, country] = (more.language ?? 'en-GB').split('-')
  return sessionOf({
    ...more,
    faces: face('Spectral') + face('Jost') + (more.faces ?? ''),
    stylesFaces: face('Spectral') + face('Jost') + (more.stylesFaces ?? ''),
    body,
    styles:
      `<style:default-style style:family="paragraph"><style:paragraph-properties fo:line-height="15pt"/>` +
      `<style:text-properties style:font-name="Spectral" fo:font-size="11pt" fo:language="${language ?? 'none'}" ` +
      `fo:country="${country ?? 'none'}"/></style:default-style>` +
      `<style:style style:name="Standard" style:family="paragraph"/>${more.styles ?? ''}`,
  })
}

/** What one check finds. */
export const foundBy = (check: string, of: DocumentSession, options?: ProofOptions): Finding[] =>
  proofOf(of, options).findings.filter(each => each.check === check)

/** The document after everything that a check found is put right. */
export function putRight(of: DocumentSession, findings: readonly Finding[]): DocumentSession {
  const wishes = repairWishes(findings, of, registry)
  return registry.plan(of, request(wishes), { effects: false }).after
}

export const p = (text: string, style = 'Standard') => `<text:p text:style-name="${style}">${text}</text:p>`
export const filler =
  'The launch goes out before the mail is sorted and comes back when the last sack is ashore, whatever the weather does '
