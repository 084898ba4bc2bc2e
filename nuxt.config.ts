import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import tailwindcss from '@tailwindcss/vite'
import { defineNuxtConfig } from 'nuxt/config'

const pdfjs = dirname(createRequire(import.meta.url).resolve('pdfjs-dist/package.json'))
/** What is said with files of the build. */
const fileHeaders = {
  'X-Content-Type-Options': 'nosniff',
  'Referrer-Policy': 'same-origin',
  'Cross-Origin-Resource-Policy': 'same-origin',
}

export default defineNuxtConfig({
  compatibilityDate: '2026-01-01',
  // A desk, not a site: everything is drawn in the browser, from what the server routes give.
  ssr: false,
  modules: ['@pinia/nuxt'],
  css: ['~/assets/desk.css'],
  devtools: { enabled: false },
  telemetry: false,
  sourcemap: false,
  experimental: { appManifest: false },
  app: {
    head: {
      title: 'Morphene',
      htmlAttrs: { lang: 'en' },
      meta: [{ name: 'viewport', content: 'width=device-width, initial-scale=1' }],
    },
  },
  // Where types are checked by; said, since a build would else go elsewhere wherever one was made before.
  buildDir: '.nuxt',
  typescript: {
    strict: true,
    tsConfig: { compilerOptions: { noUncheckedIndexedAccess: true, allowImportingTsExtensions: false } },
  },
  vite: {
    plugins: [tailwindcss()],
    // Nearly all that a worker imports is used there: looking for what is not takes half of a build.
    worker: { format: 'es', rollupOptions: { treeshake: false } },
    build: {
      // HarfBuzz starts with a top-level await.
      target: 'es2022',
      chunkSizeWarningLimit: 2000,
      reportCompressedSize: false,
      // Reading a property does nothing here, and names of the platform are there.
      rollupOptions: {
        // Each file of its own costs a page more than what it would not have needed of a larger one.
        output: { experimentalMinChunkSize: 100_000 },
        treeshake: { propertyReadSideEffects: false, unknownGlobalSideEffects: false, tryCatchDeoptimization: false },
      },
    },
    optimizeDeps: { exclude: ['harfbuzzjs'] },
    esbuild: { target: 'es2022' },
  },
  nitro: {
    hooks: {
      // What an answer is stands where it is asked for (shared/): working it out of every route's pattern takes the compiler
      // deeper than it goes.
      'types:extend': types => {
        types.routes = {}
      },
    },
    // What pages of finished PDFs are drawn with beside the library's own code: faces, encodings, decoders, profiles.
    publicAssets: ['standard_fonts', 'cmaps', 'wasm', 'iccs'].map(name => ({
      dir: join(pdfjs, name),
      baseURL: `/pdf/${name}`,
      maxAge: 60 * 60 * 24 * 365,
    })),
    // Files of the build are given out before anything else is asked.
    routeRules: {
      '/_nuxt/**': { headers: fileHeaders },
      '/pdf/**': { headers: fileHeaders },
    },
    esbuild: { options: { target: 'es2022' } },
    // The server runs beside its packages: following each file of them for a copy takes longer than all the rest.
    externals: { trace: false },
  },
})
