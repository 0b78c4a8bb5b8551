import { defineStore } from 'pinia'
import { answer, client } from '@/shared/api/client'

/** Who is signed in. */
export const useSession = defineStore('session', {
  state: () => ({ name: '', demo: false, loaded: false }),
  actions: {
    async load() {
      if (this.loaded) return
      this.take(await answer(client.GET('/api/session')))
    },
    async signIn(name: string, password: string) {
      this.take(await answer(client.POST('/api/session', { body: { name, password } })))
    },
    async signInDemo() {
      this.take(await answer(client.POST('/api/session/demo')))
    },
    async signOut() {
      this.take(await answer(client.DELETE('/api/session')))
    },
    take(session: { name: string; demo: boolean }) {
      this.name = session.name
      this.demo = session.demo
      this.loaded = true
    },
  },
})
