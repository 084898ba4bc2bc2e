/*
 * What pages need to know of the shelf as they work. It stands apart from the schemas of requests, which bring all that can
 * be planned with them: a page that only lists documents must not wait for that.
 */

/** What cards of the shelf are ordered by: newest change, name, most pages, least settled first. */
export const shelfSorts = ['changed', 'name', 'pages', 'settled'] as const
export type ShelfSort = (typeof shelfSorts)[number]

/** At most so many documents are taken into one plan. */
export const batchLimit = 2000

/** Under which name the desk keeps the checklist that its proofs go by. */
export const deskChecklist = 'Desk'
