/** Which of the card's faces lies under the pointer. */
import { Mesh, Raycaster, Vector2, type Camera, type Object3D } from 'three'

type Face = Readonly<{ parent: number | null; hinge: { readonly fold: number } | null }>

/** The fold on which a face hangs; of the face that all others hang on, that of the only one on it. */
export function foldOf(faces: readonly Face[], number: number): number | null {
  const own = faces[number]?.hinge
  if (own) return own.fold
  const on = faces.filter((f) => f.parent === number && f.hinge)
  return on.length === 1 ? on[0]!.hinge!.fold : null
}

const ray = new Raycaster()

/** The number of the sheet that is seen at a place of the canvas, in pixels from its corner; -1 for none. */
export function sheetAt(x: number, y: number, size: { width: number; height: number }, camera: Camera, card: Object3D, sheets: readonly Object3D[]): number {
  ray.setFromCamera(new Vector2((2 * x) / size.width - 1, 1 - (2 * y) / size.height), camera)
  const hit = ray.intersectObject(card, true).find((h) => h.object instanceof Mesh)
  for (let node: Object3D | null = hit?.object ?? null; node; node = node.parent) {
    const number = sheets.indexOf(node)
    if (number >= 0) return number
  }
  return -1
}
