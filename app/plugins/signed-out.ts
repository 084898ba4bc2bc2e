/** A session that ended while somebody was at work: they are asked to sign in, and come back to where they were. */
export default defineNuxtPlugin(() => {
  const plain = globalThis.$fetch
  const watched = plain.create({
    onResponseError({ response }) {
      const said = response._data as { data?: { fault?: string } } | undefined
      if (response.status !== 401 || said?.data?.fault !== 'sign-in' || location.pathname === '/sign-in') return
      location.assign(`/sign-in?to=${encodeURIComponent(location.pathname + location.search)}`)
    },
  })
  globalThis.$fetch = watched as typeof globalThis.$fetch
})
