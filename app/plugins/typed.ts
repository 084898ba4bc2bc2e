import { typed } from '../kit/typed'

/** Fields that keep what is being typed. */
export default defineNuxtPlugin(({ vueApp }) => {
  vueApp.directive('typed', typed)
})
