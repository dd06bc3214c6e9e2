import { onSignedOut } from '~/keeping/doorChannel'
import { ticketIn } from '~/keeping/ticket'

/** Before any page is shown: what was handed over from a port that the server had before is put in its place. */
export default defineNuxtPlugin(async (nuxt) => {
  const router = useRouter()
  onSignedOut(() => window.location.replace('/sign-in'))
  const ticket = ticketIn(window.location.hash)
  if (ticket === null) return
  const { takeHanded } = await import('~/keeping/handing')
  // Where it could not be taken the ticket stays in the address: loading the page anew tries again.
  if (await takeHanded(ticket).catch(() => false))
    nuxt.hook('app:mounted', () => void router.replace({ ...router.currentRoute.value, hash: '' }))
})
