import createClient from 'openapi-fetch'
import { fetchOnce } from './early'
import { ApiError } from './errors'
import type { components, paths } from './schema'

export type Schemas = components['schemas']

export function csrfToken(): string {
  return document.cookie.match(/(?:^|; )csrftoken=([^;]*)/)?.[1] ?? ''
}

/** As `fetch`, with the token. A middleware would let the page be drawn before anything is sent. */
function send(request: Request): Promise<Response> {
  if (request.method !== 'GET') request.headers.set('X-CSRFToken', csrfToken())
  return fetchOnce(request)
}

const client = createClient<paths>({ baseUrl: '/', fetch: send })
export { client }

/** The data of an answer; an ApiError for everything else, a lost connection included. */
export async function answer<T>(
  call: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<T> {
  let done
  try {
    done = await call
  } catch {
    throw ApiError.offline()
  }
  if (done.data === undefined || !done.response.ok) {
    throw ApiError.from(done.response.status, done.error)
  }
  return done.data
}

/** A request whose answer is a file. */
export async function fetchFile(path: string, body: unknown): Promise<{ blob: Blob; name: string }> {
  const response = await fetch(path, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', 'X-CSRFToken': csrfToken() },
    body: JSON.stringify(body),
  }).catch(() => {
    throw ApiError.offline()
  })
  if (!response.ok) throw ApiError.from(response.status, await response.json().catch(() => null))
  const said = response.headers.get('Content-Disposition') ?? ''
  const whole = said.match(/filename\*=UTF-8''([^;]+)/)?.[1]
  const name = whole ? decodeURIComponent(whole) : said.match(/filename="([^"]+)"/)?.[1]
  return { blob: await response.blob(), name: name ?? 'card' }
}

/** A file sent for reading, with further fields. */
export async function sendFile<T>(path: string, file: File, more: Record<string, string | File> = {}): Promise<T> {
  const form = new FormData()
  form.append('file', file)
  for (const [name, value] of Object.entries(more)) form.append(name, value)
  const response = await fetch(path, {
    method: 'POST',
    headers: { 'X-CSRFToken': csrfToken() },
    body: form,
  }).catch(() => {
    throw ApiError.offline()
  })
  const body: unknown = await response.json().catch(() => null)
  if (!response.ok) throw ApiError.from(response.status, body)
  return body as T
}
