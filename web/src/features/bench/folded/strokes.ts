/**
 * Lines of the folded card, twice: as wide as they are seen while the card rests, and as thin ones, which software
 * draws quickly, while it moves. A camera sees those of one of the two layers.
 */
import { BufferAttribute, BufferGeometry, type Camera, Group, LineBasicMaterial, LineSegments } from 'three'
import { LineMaterial } from 'three/addons/lines/LineMaterial.js'
import { LineSegments2 } from 'three/addons/lines/LineSegments2.js'
import { LineSegmentsGeometry } from 'three/addons/lines/LineSegmentsGeometry.js'

const WIDE = 1
const THIN = 2
/** Of a line at rest, in pixels of the screen. */
const WIDTH = 1.1
const wide = new Map<string | number, LineMaterial>()

function wideOf(colour: string | number): LineMaterial {
  const kept = wide.get(colour) ?? new LineMaterial({ color: colour, linewidth: WIDTH })
  wide.set(colour, kept)
  return kept
}

/** Segments from place to place, six numbers each. */
export function strokes(positions: readonly number[], colour: string | number): Group {
  const group = new Group()
  if (!positions.length) return group
  const geometry = new BufferGeometry()
  geometry.setAttribute('position', new BufferAttribute(new Float32Array(positions), 3))
  const thin = new LineSegments(geometry, new LineBasicMaterial({ color: colour }))
  thin.layers.set(THIN)
  const fine = new LineSegments2(new LineSegmentsGeometry().setPositions(new Float32Array(positions)), wideOf(colour))
  fine.layers.set(WIDE)
  return group.add(thin, fine)
}

/** The camera sees lines as they are at rest, or those that are quick. */
export function seeStrokes(camera: Camera, resting: boolean) {
  camera.layers.enable(resting ? WIDE : THIN)
  camera.layers.disable(resting ? THIN : WIDE)
}

/** Whether lines of other drawings are made of it as well: it stays when one of them goes. */
export const isShared = (material: object) => [...wide.values()].includes(material as LineMaterial)

/** Given back with the scene that drew them. */
export function disposeStrokes() {
  for (const material of wide.values()) material.dispose()
  wide.clear()
}
