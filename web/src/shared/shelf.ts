/** The shelf: artworks, papers and the person's own card sizes. */
import { defineStore } from 'pinia'
import { answer, client, type Schemas } from './api/client'
import type { Artwork, CardSize, Paper } from './api/document'

export type ShelfArtwork = Schemas['ShelfArtwork']
export type FullArtwork = ShelfArtwork & { artwork: Artwork }
type Change = Omit<Schemas['ArtworkChange'], 'artwork'> & { artwork?: Artwork }

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
      this.papers = papers.map((p) => p.paper as Paper)
      this.sizes = sizes.map((s) => s.size as CardSize)
      this.artworks = artworks as ShelfArtwork[]
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
    put(row: FullArtwork): FullArtwork {
      const plain: Partial<FullArtwork> = { ...row }
      delete plain.artwork
      this.artworks = [...this.artworks.filter((a) => a.id !== row.id), plain as ShelfArtwork].sort((a, b) =>
        a.name.localeCompare(b.name),
      )
      return row
    },
    async full(id: number) {
      return (await answer(client.GET('/api/artworks/{number}', at(id)))) as unknown as FullArtwork
    },
    async keepArtwork(artwork: Artwork, tags: string[], source: string) {
      const body = { artwork: artwork as unknown as Schemas['Artwork'], tags, source }
      return this.put((await answer(client.POST('/api/artworks', { body }))) as unknown as FullArtwork)
    },
    async changeArtwork(id: number, change: Change) {
      const body = change as unknown as Schemas['ArtworkChange']
      return this.put(
        (await answer(client.PATCH('/api/artworks/{number}', { ...at(id), body }))) as unknown as FullArtwork,
      )
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
