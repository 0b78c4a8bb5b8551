/** Which language is spoken: chosen in this browser and remembered, or else the first that it asks for. */
export const LANGUAGES = { en: 'English', de: 'Deutsch' } as const
export type Language = keyof typeof LANGUAGES

const COOKIE = 'language'
const A_YEAR = 365 * 24 * 3600

const known = (name: string): Language | undefined => (name in LANGUAGES ? (name as Language) : undefined)

export function wanted(): Language {
  const chosen = document.cookie.match(/(?:^|; )language=([^;]*)/)?.[1]
  const asked = navigator.languages.map((name) => known(name.slice(0, 2).toLowerCase()))
  return known(chosen ?? '') ?? asked.find((name) => name !== undefined) ?? 'en'
}

/** Chooses the language, for good, and begins the page anew in it. */
export function choose(name: Language) {
  document.cookie = `${COOKIE}=${name}; path=/; max-age=${A_YEAR}; SameSite=Lax`
  location.reload()
}
