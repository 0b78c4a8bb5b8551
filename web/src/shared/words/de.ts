/** What the screens say in German, what panels, folds and sides are called, and what the parts of the screen say. */
export { default as parts } from 'element-plus/es/locale/lang/de'
export { decimal as mark, names, screens } from '@words/de.json'
