/** The shelf's papers and the person's own card sizes. */
import { defineStore } from 'pinia'
import { answer, client, type Schemas } from './api/client'
import type { CardSize, Paper } from './api/document'

export const useShelf = defineStore('shelf', {
  state: () => ({
    papers: [] as Paper[],
    sizes: [] as CardSize[],
    outlines: [] as Schemas['ShelfOutline'][],
    loaded: false,
  }),
  actions: {
    async load() {
      if (this.loaded) return
      const [papers, sizes, outlines] = await Promise.all([
        answer(client.GET('/api/papers')),
        answer(client.GET('/api/sizes')),
        answer(client.GET('/api/outlines')),
      ])
      this.papers = papers.map((p) => p.paper as Paper)
      this.sizes = sizes.map((s) => s.size as CardSize)
      this.outlines = outlines as Schemas['ShelfOutline'][]
      this.loaded = true
    },
    async keepSize(size: CardSize) {
      const kept = await answer(client.POST('/api/sizes', { body: size }))
      this.sizes.push(kept.size as CardSize)
    },
    async keepPaper(paper: Paper): Promise<Paper> {
      const kept = await answer(client.POST('/api/papers', { body: paper }))
      const own = kept.paper as Paper
      this.papers.push(own)
      return own
    },
    async keepOutline(outline: { name: string; path: string; rule: 'nonzero' | 'evenodd' }) {
      const kept = (await answer(
        client.POST('/api/outlines', { body: outline }),
      )) as Schemas['ShelfOutline']
      this.outlines = [...this.outlines.filter((o) => o.id !== kept.id), kept]
      return kept
    },
  },
})
