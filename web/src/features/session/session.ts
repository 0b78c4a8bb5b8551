import { defineStore } from 'pinia'
import { answer, client, type Schemas } from '@/shared/api/client'

/** Who is signed in. */
export const useSession = defineStore('session', {
  state: () => ({ name: '', place: '', demo: false, mayJoin: false, loaded: false, account: null as Schemas['Account'] | null }),
  getters: {
    /** Tells the person and the server's data from others in this browser. */
    owner: ({ place, name }) => `${place}-${name}`,
  },
  actions: {
    async load() {
      if (this.loaded) return
      this.take(await answer(client.GET('/api/session')))
    },
    async signIn(name: string, password: string) {
      this.take(await answer(client.POST('/api/session', { body: { name, password } })))
    },
    async join(name: string, password: string) {
      this.take(await answer(client.POST('/api/accounts', { body: { name, password } })))
    },
    async signInDemo() {
      this.take(await answer(client.POST('/api/session/demo')))
    },
    /** How much of one's quotas is used. */
    async loadAccount() {
      this.account = await answer(client.GET('/api/account'))
    },
    async signOut() {
      this.take(await answer(client.DELETE('/api/session')))
    },
    take(session: Schemas['Session']) {
      this.name = session.name
      this.place = session.place
      this.mayJoin = session.sign_up
      this.demo = session.demo
      this.loaded = true
    },
  },
})
