/** The folded card as a picture: how it is looked at, and the picture that is drawn. */
import { Vector3, type Camera, type Group, type Scene, type WebGLRenderer } from 'three'
import type { Seen } from '../commands/useExport'
import { seeStrokes } from './strokes'

/** Where the eye and up are as the card itself has it. */
export function seenFrom(camera: Camera, target: Vector3, card: Group): Omit<Seen, 'angles' | 'apart'> {
  const back = card.quaternion.clone().invert()
  const eye = camera.position.clone().sub(target).normalize().applyQuaternion(back)
  const up = new Vector3(0, 1, 0).applyQuaternion(back)
  return { eye: [eye.x, eye.y, eye.z], up: [up.x, up.y, up.z] }
}

/** On a transparent ground, `longest` pixels along its longer side or as many as can be drawn. */
export function pictureOf(renderer: WebGLRenderer, scene: Scene, camera: Camera, longest: number): Promise<Blob | null> {
  const canvas = renderer.domElement
  const before = renderer.getPixelRatio()
  const size = Math.max(canvas.clientWidth, canvas.clientHeight, 1)
  renderer.setPixelRatio(Math.min(longest, renderer.capabilities.maxTextureSize) / size)
  seeStrokes(camera, true)
  renderer.render(scene, camera)
  const made = new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'))
  renderer.setPixelRatio(before)
  return made
}
