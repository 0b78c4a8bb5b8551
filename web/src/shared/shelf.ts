/** The shelf: artworks, papers and the person's own card sizes. */
import { defineStore } from 'pinia'
import { answer, client, type Schemas } from './api/client'
import type { CardSize, Paper } from './api/document'

export type ShelfArtwork = Schemas['ShelfArtwork']
export type FullArtwork = Schemas['FullArtwork']
export type Drawing = Schemas['Drawing']

const at = (id: number) => ({ params: { path: { number: id } } })

export const useShelf = defineStore('shelf', {
  state: () => ({
    papers: [] as Paper[],
    sizes: [] as CardSize[],
    artworks: [] as ShelfArtwork[],
    loaded: false,
  }),
  getters: {
    /** Those that are not in the bin. */
    kept: (state) => state.artworks.filter((a) => !a.binned),
    /** The artwork that came in place of the one with this key, if that was replaced. */
    newer: (state) => (key: string) => state.artworks.find((a) => !a.binned && a.earlier.includes(key)),
  },
  actions: {
    async load(again = false) {
      if (this.loaded && !again) return
      const [papers, sizes, artworks] = await Promise.all([
        answer(client.GET('/api/papers')),
        answer(client.GET('/api/sizes')),
        answer(client.GET('/api/artworks')),
      ])
      this.papers = papers.map((p) => p.paper)
      this.sizes = sizes.map((s) => s.size)
      this.artworks = [...artworks]
      this.loaded = true
    },
    async keepSize(size: CardSize) {
      const kept = await answer(client.POST('/api/sizes', { body: size }))
      this.sizes.push(kept.size)
    },
    async keepPaper(paper: Paper): Promise<Paper> {
      const kept = await answer(client.POST('/api/papers', { body: paper }))
      this.papers.push(kept.paper)
      return kept.paper
    },
    put(row: FullArtwork): FullArtwork {
      const plain = { ...row, artwork: undefined }
      this.artworks = [...this.artworks.filter((a) => a.id !== row.id), plain].sort((a, b) =>
        a.name.localeCompare(b.name),
      )
      return row
    },
    async full(id: number) {
      return answer(client.GET('/api/artworks/{number}', at(id)))
    },
    async keepArtwork(drawing: Drawing, tags: readonly string[], source: string) {
      return this.put(await answer(client.POST('/api/artworks', { body: { drawing, tags, source } })))
    },
    async changeArtwork(id: number, body: Schemas['ArtworkChange']) {
      return this.put(await answer(client.PATCH('/api/artworks/{number}', { ...at(id), body })))
    },
    async removeArtwork(id: number) {
      await answer(client.DELETE('/api/artworks/{number}', at(id)))
      this.artworks = this.artworks.filter((a) => a.id !== id)
    },
    async uses(id: number) {
      return answer(client.GET('/api/artworks/{number}/uses', at(id)))
    },
  },
})
