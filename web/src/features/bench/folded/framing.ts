/** From where points are in view as large as they can be. */
import { Box3, Vector3, type PerspectiveCamera } from 'three'

/** The middle of what is seen of the points from a direction, and the distance from which they take a share of the view. */
export function framing(towards: Vector3, points: readonly Vector3[], camera: PerspectiveCamera, share: number) {
  const across = new Vector3(0, 1, 0).cross(towards).normalize()
  const upwards = towards.clone().cross(across)
  const middle = new Box3().setFromPoints([...points]).getCenter(new Vector3())
  const side = (axis: Vector3) => {
    const along = points.map((p) => p.clone().sub(middle).dot(axis))
    return (Math.min(...along) + Math.max(...along)) / 2
  }
  middle.addScaledVector(across, side(across)).addScaledVector(upwards, side(upwards))
  const high = Math.tan((camera.fov * Math.PI) / 360) * share
  const wide = high * camera.aspect
  const distance = Math.max(
    ...points.map((p) => {
      const q = p.clone().sub(middle)
      return Math.max(Math.abs(q.dot(across)) / wide, Math.abs(q.dot(upwards)) / high) + q.dot(towards)
    }),
  )
  return { middle, distance }
}
