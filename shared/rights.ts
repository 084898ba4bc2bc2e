/**
 * What somebody may do at the desk; every route says which of them it needs. `look`: see documents, pages, plans and
 * records. `remark`: say something of
 * documents. `take`: take documents, PDFs and lists away. `change`: change documents. `arrange`: put on the shelf and take
 * off, folders, kept frames and wishes, defaults, stand-ins. `fonts`: have whole font files. `faces`: add and remove faces. `purge`:
 * say how long the trash and folders keep documents, and let them go for good. `sign`: sign versions off. `issue`: issue
 * versions of houses. `people`: see and change who works here and what they may do.
 */
export const rights = [
  'look',
  'remark',
  'take',
  'change',
  'arrange',
  'fonts',
  'faces',
  'purge',
  'sign',
  'issue',
  'people',
] as const
export type Right = (typeof rights)[number]
