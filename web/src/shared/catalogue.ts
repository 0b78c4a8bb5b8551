/** What can be built, as the server tells it: kinds of steps and figures, sizes, ways. */
import { defineStore } from 'pinia'
import { answer, client, type Schemas } from './api/client'
import type { CardSize } from './api/document'

export type StepKind = Schemas['StepKind']
export type FigureKind = Schemas['FigureKind']

type Catalogue = Omit<Schemas['Catalogue'], 'sizes'> & { sizes: CardSize[] }

/** A way's title within a sentence. */
export const inSentence = (title: string) => (title.startsWith('French') ? title : title.toLowerCase())

export const useCatalogue = defineStore('catalogue', {
  state: () => ({ data: null as Catalogue | null }),
  getters: {
    step(state) {
      return (kind: string): StepKind | undefined => state.data?.steps.find((s) => s.kind === kind)
    },
    figure(state) {
      return (kind: string): FigureKind | undefined => state.data?.figures.find((f) => f.kind === kind)
    },
  },
  actions: {
    async load() {
      if (!this.data) this.data = (await answer(client.GET('/api/catalogue'))) as Catalogue
    },
  },
})
