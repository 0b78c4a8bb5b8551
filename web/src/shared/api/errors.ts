/** What the API answers when it refuses: problem+json, as the one error of the browser. */
import { t } from '@/shared/words'
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly hint: string,
    readonly field: string,
    readonly more: Record<string, unknown>,
  ) {
    super(message)
    this.name = 'ApiError'
  }

  /** Message and hint in one sentence or two. */
  get text(): string {
    return this.hint ? `${this.message} ${this.hint}` : this.message
  }

  get isOffline(): boolean {
    return this.status === 0
  }

  static from(status: number, body: unknown): ApiError {
    const data = (typeof body === 'object' && body !== null ? body : {}) as Record<string, unknown>
    const text = (key: string, fallback: string) =>
      typeof data[key] === 'string' ? (data[key] as string) : fallback
    return new ApiError(
      status,
      text('type', '').replace('stileblade:', ''),
      text('title', t('The server answered with {status}.', { status })),
      text('hint', ''),
      text('field', ''),
      data,
    )
  }

  /** What the browser itself finds wrong. */
  static of(message: string, hint = ''): ApiError {
    return new ApiError(400, 'browser', message, hint, '', {})
  }

  static offline(): ApiError {
    return new ApiError(0, 'offline', t('The server cannot be reached.'), t('Your work is kept in this browser.'), '', {})
  }
}
