import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { api } from '~/keeping/api'
import type { Session } from '~/keeping/api'
import { forgetEverything, unsentFile, unsentWork } from '~/keeping/leaving'
import type { Unsent } from '~/keeping/leaving'
import { saveAs } from '~/drawing/files'

/** The door of the server: who is signed in, and signing out, which leaves nothing of the work in this browser. */
export const useDoorStore = defineStore('door', () => {
  const session = shallowRef<Session | null>(null)
  const asking = ref(false)
  const unsent = shallowRef<readonly Unsent[]>([])
  /** True once what is unsent was saved as a file. */
  const offered = ref(false)
  const busy = ref(false)
  const message = ref('')

  /** There is a door, and this browser is through it. */
  const inside = computed(() => session.value?.needed === true && session.value.signedIn)

  async function load(): Promise<void> {
    session.value = await api.session().catch(() => session.value)
  }

  async function ask(): Promise<void> {
    message.value = ''
    offered.value = false
    unsent.value = await unsentWork()
    asking.value = true
    await load()
  }

  async function saveUnsent(): Promise<void> {
    saveAs(new Blob([new Uint8Array(await unsentFile(unsent.value))], { type: 'application/zip' }), 'unsent.zip')
    offered.value = true
  }

  /** Ends the session, or all of this browser; what the browser holds is taken away, and the page with it. */
  async function signOut(all: boolean): Promise<void> {
    busy.value = true
    message.value = ''
    try {
      await api.signOut(all ? 'browser' : 'this')
      await forgetEverything()
      window.location.assign('/sign-in')
    } catch (error) {
      busy.value = false
      const why = error instanceof Error ? error.message : ''
      message.value = `You are still signed in, or something is still kept in this browser. ${why}`
    }
  }

  /** Whoever else is signed in is not any more. */
  async function endOthers(): Promise<void> {
    message.value = ''
    try {
      await api.signOut('others')
      await load()
    } catch (error) {
      message.value = error instanceof Error ? error.message : 'It could not be done.'
    }
  }

  return { session, asking, unsent, offered, busy, message, inside, load, ask, saveUnsent, signOut, endOthers }
})
