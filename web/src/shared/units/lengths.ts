/**
 * Lengths as people type and read them: the twin of the core's stileblade/units.py, held to
 * the same table of examples (tests/golden/lengths.json).
 */
import type { Unit } from '@/shared/api/document'
import { decimal, t } from '@/shared/words'

export const MM_PER_IN = 25.4
const UNITS: Record<string, number> = { mm: 1, cm: 10, in: 25.4, '"': 25.4, inch: 25.4, inches: 25.4 }
const TOKEN =
  /\s*(?:(\d+[ \t]+\d+\/\d+)|(\d+\/\d+)|(\d+(?:[.,]\d*)?|[.,]\d+)|([A-Za-z]+|")|([-+*/()×−]))/y
const HINT = t('Type a length such as 108, 4.25in, 5 1/8 in or 10 1/4in / 2.')
const DEEPEST = 20

export class LengthError extends Error {
  readonly hint = HINT
}

interface Token {
  kind: 'mixed' | 'fraction' | 'number' | 'unit' | 'sign' | 'end'
  text: string
  at: number
}
interface Value {
  amount: number
  isLength: boolean
}

class Parser {
  private tokens: Token[] = []
  private next = 0
  private depth = 0

  constructor(
    private readonly text: string,
    private readonly unit: Unit,
  ) {
    const kinds = ['mixed', 'fraction', 'number', 'unit', 'sign'] as const
    const end = text.trimEnd().length
    let at = 0
    while (at < end) {
      TOKEN.lastIndex = at
      const match = TOKEN.exec(text)
      if (!match) throw this.error(t('\'{at}\' is not understood', { at: text.slice(at).trim().slice(0, 12) }), at)
      const index = kinds.findIndex((_, i) => match[i + 1] !== undefined)
      let kind: Token['kind'] = kinds[index]!
      let value = match[index + 1]!
      const start = TOKEN.lastIndex - value.length
      at = TOKEN.lastIndex
      if (kind === 'unit' && value.toLowerCase() === 'x') [kind, value] = ['sign', '*']
      if (value === '×') value = '*'
      if (value === '−') value = '-'
      this.tokens.push({ kind, text: value, at: start })
    }
  }

  private error(what: string, at?: number): LengthError {
    const text = `'${this.text.trim()}'`
    if (what.startsWith(text)) return new LengthError(`${what}.`)
    const place = at === undefined ? '' : t(' (at character {at})', { at: at + 1 })
    return new LengthError(`${text}: ${what}${place}.`)
  }

  private peek(): Token {
    return this.tokens[this.next] ?? { kind: 'end', text: '', at: this.text.length }
  }

  private takeSign(signs: string): string {
    const token = this.peek()
    if (token.kind !== 'sign' || !signs.includes(token.text)) return ''
    this.next += 1
    return token.text
  }

  parse(): number {
    if (!this.tokens.length) throw this.error(t('there is no length here'))
    const value = this.length(this.sum())
    const rest = this.peek()
    if (rest.kind !== 'end') throw this.error(t('\'{text}\' was not expected', { text: rest.text }), rest.at)
    if (!Number.isFinite(value)) throw this.error(t('that is too large'))
    return value
  }

  private length(value: Value): number {
    return value.isLength ? value.amount : value.amount * (this.unit === 'in' ? MM_PER_IN : 1)
  }

  private sum(): Value {
    let value = this.product()
    for (let sign = this.takeSign('+-'); sign; sign = this.takeSign('+-')) {
      const other = this.product()
      const isLength = value.isLength || other.isLength
      const a = isLength ? this.length(value) : value.amount
      const b = isLength ? this.length(other) : other.amount
      value = { amount: sign === '+' ? a + b : a - b, isLength }
    }
    return value
  }

  private product(): Value {
    let value = this.factor()
    for (;;) {
      const at = this.peek().at
      const sign = this.takeSign('*/')
      if (!sign) return value
      const other = this.factor()
      if (sign === '*') {
        if (value.isLength && other.isLength) throw this.error(t('two lengths multiplied are an area'), at)
        value = { amount: value.amount * other.amount, isLength: value.isLength || other.isLength }
      } else {
        if (other.isLength) throw this.error(t('divide by a plain number, not by a length'), at)
        if (other.amount === 0) throw this.error(t('nothing can be divided by zero'), at)
        value = { amount: value.amount / other.amount, isLength: value.isLength }
      }
    }
  }

  private factor(): Value {
    const sign = this.takeSign('+-')
    if (sign) {
      const value = this.deeper(() => this.factor())
      return { ...value, amount: sign === '-' ? -value.amount : value.amount }
    }
    if (this.takeSign('(')) {
      const value = this.deeper(() => this.sum())
      if (!this.takeSign(')')) throw this.error(t('a bracket is not closed'), this.peek().at)
      return this.withUnit(value)
    }
    const token = this.peek()
    if (token.kind !== 'mixed' && token.kind !== 'fraction' && token.kind !== 'number') {
      throw this.error(token.kind === 'end' ? t('a number is missing') : t('\'{text}\' is no number', { text: token.text }), token.at)
    }
    this.next += 1
    return this.withUnit({ amount: this.number(token), isLength: false })
  }

  private deeper(rule: () => Value): Value {
    if (++this.depth > DEEPEST) throw this.error(t('too many brackets'))
    const value = rule()
    this.depth -= 1
    return value
  }

  private number(token: Token): number {
    if (token.kind === 'number') return Number(token.text.replace(',', '.'))
    const [whole, part] =
      token.kind === 'mixed' ? (token.text.split(/[ \t]+/) as [string, string]) : ['0', token.text]
    const [above, below] = part.split('/').map(Number) as [number, number]
    if (below === 0) throw this.error(t('nothing can be divided by zero'), token.at)
    return Number(whole) + above / below
  }

  private withUnit(value: Value): Value {
    const token = this.peek()
    if (token.kind !== 'unit') return value
    const size = UNITS[token.text.toLowerCase()]
    if (size === undefined) throw this.error(t('\'{text}\' is no unit; use mm, cm or in', { text: token.text }), token.at)
    if (value.isLength) throw this.error(t('that has a unit already'), token.at)
    this.next += 1
    return { amount: value.amount * size, isLength: true }
  }
}

/** The length in mm that a text means where `unit` is shown. LengthError if it means none. */
export function parseLength(text: string, unit: Unit): number {
  if (text.length > 120) throw new LengthError(t('A length has at most 120 characters.'))
  return new Parser(text, unit).parse()
}

/** At most 2 decimals in mm, 3 in inches, zeros left off. */
export function formatLength(value: number, unit: Unit, withUnit = true): string {
  const [amount, digits] = unit === 'mm' ? [value, 2] : [value / MM_PER_IN, 3]
  // a half in the last place is a half although binary has it a little smaller
  const fixed = (amount + Math.sign(amount) * 1e-9).toFixed(digits)
  const text = fixed.includes('.') ? fixed.replace(/\.?0+$/, '') : fixed
  const clean = text === '-0' || text === '' ? '0' : decimal(text)
  return withUnit ? `${clean} ${unit}` : clean
}

/** How far an arrow key moves things: small, or large with Shift. */
export function nudge(unit: Unit, large: boolean): number {
  if (unit === 'in') return MM_PER_IN / (large ? 16 : 64)
  return large ? 1 : 0.1
}
