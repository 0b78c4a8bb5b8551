export { default as DropHint } from './DropHint.vue'
export { default as ReadingDialog, type Wish } from './ReadingDialog.vue'
export { useFileDrop } from './useFileDrop'
