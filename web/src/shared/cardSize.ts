/** Card sizes of a person's own. */
import type { CardSize, Envelope } from './api/document'
import { t } from './words'

const rounded = (mm: number) => Math.round(mm * 1000) / 1000

/** An envelope for a card of its own size: larger by twice the slack, so that the slack is left whatever a usual card's
 * thickness takes. */
export const ownEnvelope = ({ width, height }: Pick<CardSize, 'width' | 'height'>, slack: number): Envelope => ({
  name: t('Own envelope'),
  width: rounded(width + 2 * slack),
  height: rounded(height + 2 * slack),
})
