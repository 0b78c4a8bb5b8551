/** What the application says in passing, and asks. */
import { ElMessage, ElMessageBox } from 'element-plus'
import { t } from '@/shared/words'
import { ApiError } from './api/errors'

export function tell(message: string, type: 'success' | 'warning' | 'error' | 'info' = 'success') {
  ElMessage({ message, type, duration: type === 'error' ? 7000 : 3500, showClose: type === 'error' })
}

/** Shows what went wrong; anything that is not the API's own error is a defect and passed on. */
export function tellError(error: unknown) {
  if (!(error instanceof ApiError)) throw error
  tell(error.text, 'error')
}

/** Yes or no. */
export async function ask(title: string, text: string, yes: string): Promise<boolean> {
  return ElMessageBox.confirm(text, title, {
    confirmButtonText: yes,
    cancelButtonText: t('Cancel'),
    autofocus: true,
  }).then(
    () => true,
    () => false,
  )
}

/** One of two, or null to leave things as they are. */
export async function choose(title: string, text: string, first: string, second: string): Promise<'first' | 'second' | null> {
  return ElMessageBox.confirm(text, title, {
    confirmButtonText: first,
    cancelButtonText: second,
    distinguishCancelAndClose: true,
  }).then(
    () => 'first',
    (how: unknown) => (how === 'cancel' ? 'second' : null),
  )
}

/** A line of text, or null. */
export async function askText(title: string, label: string, value: string): Promise<string | null> {
  return ElMessageBox.prompt(label, title, {
    confirmButtonText: t('Save'),
    cancelButtonText: t('Cancel'),
    inputValue: value,
    inputPattern: /\S/,
    inputErrorMessage: t('Give it a name.'),
  }).then(
    ({ value: text }) => text.trim().slice(0, 120),
    () => null,
  )
}
