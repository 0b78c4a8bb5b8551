/** The light that the folded card is seen in. */
import { AmbientLight, DirectionalLight } from 'three'

/** From the front and above; from behind, for who looks into the card; and all round. */
export function lights() {
  const front = new DirectionalLight(0xfff4e2, 1.6)
  front.position.set(-250, 420, 520)
  const behind = new DirectionalLight(0xfff4e2, 0.9)
  behind.position.set(260, 380, -520)
  return [new AmbientLight(0xffffff, 1.9), front, behind]
}
