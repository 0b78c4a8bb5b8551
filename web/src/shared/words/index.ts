/**
 * What the application says, in the language that was chosen. In the code stands what it says in English, and that
 * is the key of what it says in others (stileblade/words/de.json, "screens"). "{n} card | {n} cards" has a form for
 * one and one for more.
 *
 * The language is there before any screen is loaded (main.ts), and another one is the page loaded anew: so texts can
 * be said outside of components, once.
 */
import type { Language as ElementLanguage } from 'element-plus/es/locale'
import type { Plugin } from 'vue'
import { createI18n } from 'vue-i18n'
import { type Language, wanted } from './language'

export { choose, LANGUAGES, type Language } from './language'

type Sayings = Record<string, string>

const NONE = {}
let names: Sayings = {}
/** What stands between a figure's whole and its parts. */
let mark = '.'
let sayings: Sayings = {}
/** What the library of the screen's parts says of its own; undefined is English. */
export let parts: ElementLanguage | undefined

export const words = createI18n({
  legacy: false,
  locale: 'en' as Language,
  messages: { en: {} as Sayings, de: {} as Sayings },
  messageResolver: (sayings, key) => (sayings as Sayings)[key] ?? key,
  missingWarn: false,
  fallbackWarn: false,
})

/** What is said for an English text, with its values; `n` chooses between the forms for one and for more. */
export function t(text: string, values: Record<string, unknown> | number = NONE, n?: number): string {
  // most texts have neither: hundreds of them are said for each list
  if (values === NONE) return sayings[text] ?? text
  const { t: say } = words.global
  if (typeof values === 'number') return say(text, values)
  return n === undefined ? say(text, values) : say(text, values, n)
}

/** For templates, as `$t`. */
export const saying: Plugin = {
  install(app) {
    app.use(words)
    app.config.globalProperties.$t = t as typeof app.config.globalProperties.$t
  },
}

export function language(): Language {
  return words.global.locale.value
}

/** Bytes as megabytes, as the language writes numbers. */
export function inMegabytes(bytes: number): string {
  return `${(bytes / 1e6).toLocaleString(locale(), { maximumFractionDigits: bytes < 1e7 ? 1 : 0 })} MB`
}

/** How times and days are written: as the browser's own country does where it speaks the language. */
export function locale(): string {
  const own = navigator.languages.find((name) => name.startsWith(`${language()}-`))
  return own ?? (language() === 'en' ? 'en-GB' : language())
}

/** A panel, a fold or a side by the name that it has in documents, as it is called: "fold 2". */
export function called(name: string): string {
  if (language() === 'en') return name
  const numbered = /^(.*) (\d+(?:\.\d+)?)$/.exec(name)
  const title = numbered && names[`${numbered[1]} {n}`]
  return title ? title.replace('{n}', numbered[2]!) : (names[name] ?? name)
}

/** A figure as it is written: with a comma where the language has that. */
export const decimal = (figure: number | string): string =>
  String(figure).replace('.', mark)

/** A text that begins with a large letter. */
export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)

/** Figures one after the other, told apart where they have commas themselves. */
export const inRow = (figures: readonly string[]): string => figures.join(mark === ',' ? '; ' : ', ')

/** Loads what is said in the wanted language. */
export async function speak(): Promise<void> {
  const name = wanted()
  if (name === 'de') {
    const de = await import('./de')
    sayings = de.screens
    words.global.setLocaleMessage(name, sayings)
    ;({ mark, names, parts } = de)
  }
  words.global.locale.value = name
  document.documentElement.lang = name
}
