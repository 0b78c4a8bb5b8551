/** From a kind's JSON Schema to the fields of its form. Knows types, not kinds. */

export type Control =
  | 'length'
  | 'angle'
  | 'area'
  | 'count'
  | 'share'
  | 'switch'
  | 'choice'
  | 'outline'
  | 'target'
  | 'anchor'
  | 'fold'
  | 'artwork'
  | 'layers'
  | 'picks'
  | 'panels'
  | 'window'
  | 'piece'
  | 'hidden'
  | 'text'

export interface Field {
  name: string
  title: string
  description: string
  control: Control
  initial: unknown
  min?: number
  max?: number
  above?: number
  options: { value: string; label: string }[]
  when: Record<string, string[]>
  /** What a control says where the value is "". */
  empty: string
}

type Schema = Record<string, unknown>
const HIDDEN = new Set(['kind', 'id', 'on', 'ref'])
const BY_UNIT: Record<string, Control> = {
  mm: 'length',
  deg: 'angle',
  mm2: 'area',
  count: 'count',
  share: 'share',
}

/** The fields of a form, in the order of the schema. */
export function fieldsOf(form: Schema): Field[] {
  const properties = (form.properties ?? {}) as Record<string, Schema>
  return Object.entries(properties)
    .filter(([name]) => !HIDDEN.has(name))
    .map(([name, schema]) => fieldOf(name, schema, form))
    .filter((f) => f.control !== 'hidden')
}

/** A kind's values as they are before anybody sets one. */
export function initialValues(form: Schema): Record<string, unknown> {
  const properties = (form.properties ?? {}) as Record<string, Schema>
  return Object.fromEntries(
    Object.entries(properties)
      .filter(([name, schema]) => name !== 'id' && 'default' in schema)
      .map(([name, schema]) => [name, schema.default]),
  )
}

/** Whether a field counts, given the other values. */
export function counts(field: Field, values: Readonly<Record<string, unknown>>): boolean {
  return Object.entries(field.when).every(([name, wanted]) => {
    const value = String(values[name] ?? '')
    return wanted.includes(value) || (wanted.includes('*') && value !== '')
  })
}

function resolve(schema: Schema, root: Schema): Schema {
  const reference = schema.$ref
  if (typeof reference !== 'string') return schema
  const name = reference.split('/').pop() ?? ''
  return ((root.$defs ?? {}) as Record<string, Schema>)[name] ?? {}
}

function fieldOf(name: string, schema: Schema, root: Schema): Field {
  const target = resolve(schema, root)
  const labels = (schema.labels ?? {}) as Record<string, string>
  const options = ((target.enum ?? []) as string[]).map((value) => ({
    value,
    label: labels[value] ?? value,
  }))
  return {
    name,
    // a title that is also its type's name stands with the type alone
    title: String(schema.title ?? target.title ?? name),
    description: String(schema.description ?? ''),
    control: controlOf(schema, target, options.length > 0),
    initial: schema.default,
    min: schema.minimum as number | undefined,
    max: schema.maximum as number | undefined,
    above: schema.exclusiveMinimum as number | undefined,
    options,
    when: (schema.when ?? {}) as Record<string, string[]>,
    empty: String(schema.empty ?? ''),
  }
}

function controlOf(schema: Schema, target: Schema, isEnum: boolean): Control {
  if (typeof schema.control === 'string') return schema.control as Control
  if (typeof schema.unit === 'string') return BY_UNIT[schema.unit] ?? 'share'
  if (isEnum) return 'choice'
  return target.type === 'boolean' ? 'switch' : 'text'
}
