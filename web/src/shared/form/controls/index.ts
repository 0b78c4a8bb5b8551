/** The control for each kind of field. A new kind is one more line here and one more file beside. */
import type { Component } from 'vue'
import type { Control, Field } from '../schemaForm'
import AnchorControl from './AnchorControl.vue'
import ChoiceControl from './ChoiceControl.vue'
import LengthControl from './LengthControl.vue'
import NamedControl from './NamedControl.vue'
import NumberControl from './NumberControl.vue'
import SwitchControl from './SwitchControl.vue'
import TargetControl from './TargetControl.vue'
import TextControl from './TextControl.vue'

export const CONTROLS: Partial<Record<Control, Component>> & { text: Component } = {
  length: LengthControl,
  angle: NumberControl,
  area: NumberControl,
  count: NumberControl,
  share: NumberControl,
  switch: SwitchControl,
  choice: ChoiceControl,
  anchor: AnchorControl,
  target: TargetControl,
  fold: NamedControl,
  window: NamedControl,
  piece: NamedControl,
  text: TextControl,
}
/** Controls that show their trouble themselves. */
export const SELF_TELLING: ReadonlySet<Control> = new Set<Control>(['length', 'angle', 'area', 'count', 'share'])
/** Controls that say their title themselves. */
export const TITLED_ITSELF: ReadonlySet<Control> = new Set<Control>(['switch'])

const DOUBLE: ReadonlySet<Control> = new Set<Control>(['window', 'choice'])

/** How much of a form's row a field takes. */
export function spanOf(field: Field): '' | 'double' | 'row' {
  if (field.control === 'switch') return 'row'
  return DOUBLE.has(field.control) || (field.control === 'target' && field.empty) ? 'double' : ''
}
