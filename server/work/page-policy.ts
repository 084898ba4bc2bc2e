import { createHash } from 'node:crypto'

/** Where anything may come from by itself: this desk, and nobody may show it in a frame. */
const base = [
  "default-src 'none'",
  "base-uri 'none'",
  "object-src 'none'",
  "frame-ancestors 'none'",
  "form-action 'self'",
  "connect-src 'self'",
  "worker-src 'self'",
  "manifest-src 'self'",
  // Pages are drawn with faces and pictures that the desk has taken apart itself.
  "img-src 'self' data: blob:",
  "font-src 'self' data: blob:",
  // Where things stand is set on the elements themselves.
  "style-src 'self' 'unsafe-inline'",
]

/** Scripts in a page that are no data: they are let run by what they say, and no others are. */
const inline = /<script(?![^>]*\bsrc=)(?![^>]*\btype="application\/(?:ld\+)?json")[^>]*>([\s\S]*?)<\/script>/g

/**
 * The content security policy of a page (W3C Content Security Policy Level 3): scripts come from this desk, and of those
 * that stand in the page only the ones that were built into it, each known by its hash. The typesetting engine is
 * WebAssembly, which `wasm-unsafe-eval` lets run, and no more.
 */
export function pagePolicy(html: string): string {
  const hashes = [...html.matchAll(inline)].map(
    ([, script]) => `'sha256-${createHash('sha256').update(script!).digest('base64')}'`,
  )
  return [...base, ["script-src 'self' 'wasm-unsafe-eval'", ...new Set(hashes)].join(' ')].join('; ')
}

/** What a program is answered is never a page: nothing in it may run or be shown in one. */
export const dataPolicy = "default-src 'none'; frame-ancestors 'none'"
