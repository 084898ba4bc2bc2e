/*
 * The icons that the desk uses, each taken from its own file: the package's index would have the build read all of its
 * two thousand.
 */
export { default as Check } from '@lucide/vue/dist/esm/icons/check.mjs'
export { default as ChevronDown } from '@lucide/vue/dist/esm/icons/chevron-down.mjs'
export { default as ChevronLeft } from '@lucide/vue/dist/esm/icons/chevron-left.mjs'
export { default as ChevronRight } from '@lucide/vue/dist/esm/icons/chevron-right.mjs'
export { default as Redo2 } from '@lucide/vue/dist/esm/icons/redo-2.mjs'
export { default as Search } from '@lucide/vue/dist/esm/icons/search.mjs'
export { default as Undo2 } from '@lucide/vue/dist/esm/icons/undo-2.mjs'
export { default as ZoomIn } from '@lucide/vue/dist/esm/icons/zoom-in.mjs'
export { default as ZoomOut } from '@lucide/vue/dist/esm/icons/zoom-out.mjs'
