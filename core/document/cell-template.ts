import type { XmlElement } from '../xml/tree'
import type { CellTemplate } from './story-model'

/** Parts of a table's template that apply to a cell (table:use-…-styles, ODF 1.4 part 3, 19.750 ff.). */
export function templateOf(
  table: XmlElement,
  row: number,
  rows: number,
  column: number,
  columns: number,
): CellTemplate | null {
  const { attributes } = table
  const name = attributes['table:template-name']
  if (!name) return null
  const uses = (what: string) => attributes[`table:use-${what}-styles`] === 'true'
  const body = row - (uses('first-row') ? 1 : 0)
  const parts = ['body']
  if (uses('banding-columns')) parts.push(column % 2 === 0 ? 'odd-columns' : 'even-columns')
  if (uses('banding-rows') && body >= 0) parts.push(body % 2 === 0 ? 'odd-rows' : 'even-rows')
  if (uses('first-column') && column === 0) parts.push('first-column')
  if (uses('last-column') && column === columns - 1) parts.push('last-column')
  if (uses('first-row') && row === 0) parts.push('first-row')
  if (uses('last-row') && row === rows - 1) parts.push('last-row')
  return { name, parts }
}
