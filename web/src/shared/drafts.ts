/**
 * Drafts of designs in this browser: a bridge over a lost connection. Each tab has one of its own for each design, so
 * that of two tabs neither's work is lost. A draft belongs to a person and to the server's own data ("owner").
 *
 * A person who signs out leaves no readable draft: it is deleted, or sealed with a key that the server gives to
 * that person alone (AES-GCM).
 */
import { answer, client } from '@/shared/api/client'
import type { DesignData } from '@/shared/api/document'

/** `sent` is what was on its way to the server when the draft was written, at the time `at`. */
export interface Draft {
  readonly revision: number
  readonly document: DesignData
  readonly sent: DesignData | null
  readonly at: string
}

/** A draft that was left here by a tab that is gone. */
export interface LeftDraft extends Draft {
  readonly key: string
}

interface Sealed {
  readonly sealed: string
  readonly iv: string
}

const ALL = 'stileblade-draft/'
const isRecord = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null
const isDraft = (value: unknown): value is Draft => isRecord(value) && 'revision' in value && 'document' in value && 'at' in value
const isSealed = (value: unknown): value is Sealed => isRecord(value) && typeof value.sealed === 'string' && typeof value.iv === 'string'

const ofOwner = (owner: string) => `${ALL}${encodeURIComponent(owner)}/`
const ofDesign = (owner: string, id: number) => `${ofOwner(owner)}${id}/`

/** The key of this tab's own draft of a design. */
export function newDraftKey(owner: string, id: number): string {
  return ofDesign(owner, id) + Math.random().toString(36).slice(2) + Date.now().toString(36)
}

export function writeDraft(key: string, draft: Draft | Sealed): void {
  try {
    localStorage.setItem(key, JSON.stringify(draft))
  } catch {
    // a full store means that nothing can be kept here
  }
}

export function removeDraft(key: string): void {
  try {
    localStorage.removeItem(key)
  } catch {
    // nothing is kept here
  }
}

function keysWith(prefix: string): string[] {
  try {
    return Array.from({ length: localStorage.length }, (_, i) => localStorage.key(i) ?? '').filter((key) => key.startsWith(prefix))
  } catch {
    return []
  }
}

function read(key: string): unknown {
  try {
    return JSON.parse(localStorage.getItem(key) ?? 'null')
  } catch {
    return null
  }
}

/** Drafts of a design that tabs left which are gone, the newest first; anything else under such a key is removed. */
export async function leftDrafts(owner: string, id: number): Promise<LeftDraft[]> {
  moveOld(owner, id)
  const alive = await keysInUse()
  const found: LeftDraft[] = []
  for (const key of keysWith(ofDesign(owner, id)).filter((k) => !alive.has(k))) {
    const value = read(key)
    const draft = isSealed(value) ? await unsealed(value) : value
    if (isDraft(draft)) found.push({ ...draft, key })
    else if (!isSealed(value)) removeDraft(key)
  }
  return found.sort((a, b) => b.at.localeCompare(a.at))
}

/** Drafts by the names of before there was one for each tab. */
function moveOld(owner: string, id: number) {
  for (const old of [`stileblade-draft-${owner}-${id}`, `stileblade-draft-${owner}-${id}-offered`]) {
    const draft = read(old)
    removeDraft(old)
    if (isDraft(draft)) writeDraft(newDraftKey(owner, id), draft)
  }
}

/** Says that this tab works on the draft of that key, until the returned function is called or the tab is gone. */
export function useKey(key: string): () => void {
  let free = () => {}
  const gone = new Promise<void>((resolve) => (free = resolve))
  // where a page is not served securely there are no locks: then a draft is offered while its tab is open, too
  void navigator.locks?.request(key, () => gone)
  return free
}

async function keysInUse(): Promise<ReadonlySet<string>> {
  const state = await navigator.locks?.query()
  return new Set((state?.held ?? []).map((lock) => lock.name ?? ''))
}

/** The keys of all drafts of a person that could be read by the next person who uses this browser. */
export function openDrafts(owner: string): string[] {
  return keysWith(ofOwner(owner)).filter((key) => isDraft(read(key)))
}

/** Whether drafts can be sealed here: browsers encrypt in pages that were served securely alone. */
export const canSeal = () => 'crypto' in globalThis && crypto.subtle !== undefined

/** Seals all drafts of a person. To be called while the person is still signed in. */
export async function sealDrafts(owner: string): Promise<void> {
  const key = await personalKey()
  for (const name of openDrafts(owner)) {
    const iv = crypto.getRandomValues(new Uint8Array(12))
    const text = new TextEncoder().encode(JSON.stringify(read(name)))
    const sealed = await crypto.subtle.encrypt({ name: 'AES-GCM', iv }, key, text)
    writeDraft(name, { sealed: toText(new Uint8Array(sealed)), iv: toText(iv) })
  }
}

/** What was sealed; null where it was not by this person, or not here. */
async function unsealed({ sealed, iv }: Sealed): Promise<unknown> {
  if (!canSeal()) return null
  try {
    const text = await crypto.subtle.decrypt({ name: 'AES-GCM', iv: toBytes(iv) }, await personalKey(), toBytes(sealed))
    return JSON.parse(new TextDecoder().decode(text))
  } catch {
    return null
  }
}

async function personalKey(): Promise<CryptoKey> {
  const { key } = await answer(client.GET('/api/account/draft-key'))
  return crypto.subtle.importKey('raw', toBytes(key), 'AES-GCM', false, ['encrypt', 'decrypt'])
}

function toText(bytes: Uint8Array): string {
  return btoa(Array.from(bytes, (byte) => String.fromCharCode(byte)).join(''))
}
function toBytes(text: string): Uint8Array<ArrayBuffer> {
  return Uint8Array.from(atob(text), (letter) => letter.charCodeAt(0))
}
