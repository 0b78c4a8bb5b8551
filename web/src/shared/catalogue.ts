/** What can be built, as the server tells it: kinds of steps and figures, sizes, ways, formats. */
import { defineStore } from 'pinia'
import { answer, client, type Schemas } from './api/client'
import { language } from './words'

export type StepKind = Schemas['StepKind']
export type FigureKind = Schemas['FigureKind']

/** A way's title within a sentence. */
export const inSentence = (title: string) => (language() !== 'en' || title.startsWith('French') ? title : title.toLowerCase())

export const useCatalogue = defineStore('catalogue', {
  state: () => ({ data: null as Schemas['Catalogue'] | null }),
  getters: {
    step(state) {
      return (kind: string): StepKind | undefined => state.data?.steps.find((s) => s.kind === kind)
    },
    figure(state) {
      return (kind: string): FigureKind | undefined => state.data?.figures.find((f) => f.kind === kind)
    },
    way(state) {
      return (kind: string) => state.data?.ways.find((w) => w.kind === kind)
    },
    /** The step that begins a piece with a card, a figure, an artwork. */
    startWith(state) {
      return (what: StepKind['starts_with']): StepKind => {
        const found = state.data?.steps.find((s) => s.starts_with === what)
        if (!found) throw new Error(`no step begins a piece with: ${what}`)
        return found
      }
    },
    /** The figure that is given by a word, or by an artwork. */
    figureBy(state) {
      return (what: FigureKind['given_by']): FigureKind | undefined => state.data?.figures.find((f) => f.given_by === what)
    },
  },
  actions: {
    async load() {
      if (!this.data) this.data = await answer(client.GET('/api/catalogue'))
    },
  },
})
export type Catalogue = ReturnType<typeof useCatalogue>
