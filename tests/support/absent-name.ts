import type { AbsentName } from '../../core/font/suggest'

/** An absent family of which the file says nothing, or what is given. */
export const absentName = (family: string, more: Partial<AbsentName> = {}): AbsentName => ({
  family,
  generic: '',
  pitch: '',
  panose: [],
  stated: {},
  weight: 400,
  italic: false,
  ...more,
})
