declare module '@lucide/vue/dist/esm/icons/*.mjs' {
  import type { FunctionalComponent, SVGAttributes } from 'vue'

  const icon: FunctionalComponent<SVGAttributes & { size?: number }>
  export default icon
}
