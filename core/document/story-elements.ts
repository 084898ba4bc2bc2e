/** Shapes: what lies in a place of its own, with or without text in it. */
export const shapeNames: ReadonlySet<string> = new Set([
  'draw:frame',
  'draw:custom-shape',
  'draw:rect',
  'draw:circle',
  'draw:ellipse',
  'draw:line',
  'draw:polyline',
  'draw:polygon',
  'draw:regular-polygon',
  'draw:path',
  'draw:connector',
  'draw:caption',
  'draw:measure',
  'draw:g',
  'draw:control',
  'draw:a',
  'draw:page-thumbnail',
  'dr3d:scene',
])
/** Elements whose content is not text of the paragraph they stand in. */
export const silent: ReadonlySet<string> = new Set([
  'text:tracked-changes',
  'office:forms',
  'text:sequence-decls',
  'text:variable-decls',
  'text:user-field-decls',
  'text:dde-connection-decls',
  'text:alphabetical-index-auto-mark-file',
  'office:event-listeners',
  'text:script',
  'svg:title',
  'svg:desc',
  'draw:glue-point',
  'draw:enhanced-geometry',
  'office:dde-source',
  'table:shapes',
])

/** Fields that a page fills and that may be empty in the file. */
export const pageFields: ReadonlySet<string> = new Set([
  'presentation:header',
  'presentation:footer',
  'presentation:date-time',
  'text:page-number',
  'text:page-count',
])
