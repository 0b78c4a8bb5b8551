/** What can be done with one design of the page, or with several at once. */
import { ref, type Ref } from 'vue'
import { useRouter } from 'vue-router'
import { answer, client, fetchFile, type Schemas } from '@/shared/api/client'
import { saveBlob } from '@/shared/files'
import { ask, askText, tell, tellError } from '@/shared/messages'
import { t } from '@/shared/words'
import { beginJob } from '@/features/sheets'

type Entry = Schemas['DesignEntry']

export function useDesignActions(load: () => Promise<void>, chosen: Ref<ReadonlySet<number>>) {
  const router = useRouter()
  /** Designs that wait for the folder that they go to. */
  const moving = ref<Entry[] | null>(null)
  const path = (entry: Entry) => ({ params: { path: { number: entry.id } } })

  async function attempt(how: () => Promise<unknown>): Promise<boolean> {
    try {
      await how()
      return true
    } catch (error) {
      tellError(error)
      return false
    }
  }
  async function act(how: () => Promise<unknown>, done?: string) {
    if (!(await attempt(how))) return
    await load()
    if (done) tell(done)
  }
  const open = (id: number) => router.push({ name: 'bench', params: { id } })

  const named = (entries: Entry[]) => ({ name: entries[0]!.name, n: entries.length })
  const mark = (designs: number[], marks: Schemas['DesignMarks']) =>
    answer(client.POST('/api/designs/several/mark', { body: { designs, marks } }))
  const copy = (designs: number[], as_template: boolean) =>
    answer(client.POST('/api/designs/several/copy', { body: { designs, as_template } }))

  /** What is done with one or several. */
  const ANY: Record<string, (entries: Entry[], ids: number[]) => unknown> = {
    sheets: (entries, ids) =>
      attempt(async () => {
        const name = entries.length === 1 ? entries[0]!.name : entries[0]!.folder || t('{n} card | {n} cards', entries.length)
        await router.push({ name: 'job', params: { id: await beginJob(ids, name) } })
      }),
    folder: (entries) => (moving.value = entries),
    copy: (_, ids) => act(() => copy(ids, false), t('Duplicated.')),
    template: (entries, ids) => act(() => copy(ids, true), t('“{name}” is there as a template, too. | {n} designs are there as templates, too.', named(entries), ids.length)),
    files: (_, ids) =>
      attempt(async () => {
        const { blob, name } = await fetchFile('/api/designs/several/files', { designs: ids })
        saveBlob(blob, name)
      }),
    bin: (entries, ids) => act(() => mark(ids, { binned: true }), t('“{name}” is in the bin. | {n} designs are in the bin.', named(entries), ids.length)),
    restore: (_, ids) => act(() => mark(ids, { binned: false }), t('Restored.')),
    delete: async (entries) => {
      if (!(await ask(t('Delete for good?'), t('“{name}” is not to be brought back then. | {n} designs are not to be brought back then.', named(entries), entries.length), t('Delete')))) return
      await act(async () => {
        for (const e of entries) await answer(client.DELETE('/api/designs/{number}', path(e)))
      })
    },
  }
  /** What is done with one alone. */
  const ONE: Record<string, (entry: Entry) => unknown> = {
    open: (e) => open(e.id),
    use: (e) =>
      attempt(async () => {
        const made = await answer(
          client.POST('/api/designs/{number}/copy', { params: { path: { number: e.id }, query: { from_template: true } } }),
        )
        await open(made.id)
      }),
    rename: async (e) => {
      const name = await askText(t('Rename'), t('New name'), e.name)
      if (name) await act(() => answer(client.PATCH('/api/designs/{number}', { ...path(e), body: { name } })))
    },
    design: (e) => act(() => mark([e.id], { template: false })),
    look: async (e) => {
      if (await ask(t('Bring it back?'), t('“{name}” goes back to the designs.', { name: e.name }), t('Restore'))) await run(e, 'restore')
    },
  }
  const all = (entries: Entry[], action: string) => ANY[action]?.(entries, entries.map((e) => e.id))
  const run = (entry: Entry, action: string) => (ONE[action] ? ONE[action](entry) : all([entry], action))
  async function runAll(entries: Entry[], action: string) {
    await all(entries, action)
    if (action !== 'folder' && action !== 'files') chosen.value = new Set()
  }
  async function putInto(folder: string) {
    const entries = moving.value ?? []
    moving.value = null
    await act(() => mark(entries.map((e) => e.id), { folder }), folder
      ? t('“{name}” is in “{folder}”. | {n} designs are in “{folder}”.', { ...named(entries), folder }, entries.length)
      : t('“{name}” is in no folder. | {n} designs are in no folder.', named(entries), entries.length))
    chosen.value = new Set()
  }
  return { moving, run, runAll, putInto }
}
