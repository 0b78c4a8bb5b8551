/** What the folded card's picture is made of: faces with their edges, an envelope. */
import {
  BufferAttribute,
  BufferGeometry,
  DoubleSide,
  Group,
  LineBasicMaterial,
  LineLoop,
  type Material,
  Mesh,
  MeshLambertMaterial,
  PlaneGeometry,
  Shape,
  ShapeGeometry,
  Vector2,
  Vector3,
} from 'three'
import type { Schemas } from '@/shared/api/client'
import { strokes } from './strokes'

export type Ring = readonly (readonly [number, number])[]
/** The sides of a sheet that its outline is drawn on: what lies on another has it on its upper one alone. */
type Sides = 'both' | 'outside' | 'inside'
const HAIR = 0.06

function signedArea(ring: Ring): number {
  return ring.reduce((sum, [x, y], i) => {
    const [nx, ny] = ring[(i + 1) % ring.length]!
    return sum + (x * ny - nx * y) / 2
  }, 0)
}

/** Shapes with their holes: shells run with positive area in the flat view. y turned upwards. */
function shapesOf(rings: readonly Ring[]): Shape[] {
  const shapes: Shape[] = []
  for (const ring of rings) {
    const points = ring.map(([x, y]) => new Vector2(x, -y))
    if (signedArea(ring) > 0) shapes.push(new Shape(points))
    else shapes.at(-1)?.holes.push(new Shape(points))
  }
  return shapes
}

function geometryOf(positions: number[]): BufferGeometry {
  const geometry = new BufferGeometry()
  geometry.setAttribute('position', new BufferAttribute(new Float32Array(positions), 3))
  return geometry
}

/** The cut edges of a face, as thick as its paper: one geometry for all its rings. */
function walls(rings: readonly Ring[], thickness: number): BufferGeometry {
  const positions: number[] = []
  for (const ring of rings) {
    ring.forEach(([ax, ay], i) => {
      const [bx, by] = ring[(i + 1) % ring.length]!
      positions.push(ax, -ay, 0, bx, -by, 0, bx, -by, -thickness)
      positions.push(ax, -ay, 0, bx, -by, -thickness, ax, -ay, -thickness)
    })
  }
  const geometry = geometryOf(positions)
  geometry.computeVertexNormals()
  return geometry
}

/** The outlines of a face, a hair off the paper: on both its sides, or on the one that is seen. */
function outlines(rings: readonly Ring[], thickness: number, seen: Sides): number[] {
  const heights = [...(seen === 'inside' ? [] : [HAIR]), ...(seen === 'outside' ? [] : [-thickness - HAIR])]
  const positions: number[] = []
  for (const ring of rings) {
    ring.forEach(([ax, ay], i) => {
      const [bx, by] = ring[(i + 1) % ring.length]!
      for (const z of heights) positions.push(ax, -ay, z, bx, -by, z)
    })
  }
  return positions
}

/** A sheet of paper: its outside at z = 0, its inside and its cut edges behind it. */
export function faceSheet(rings: readonly Ring[], thickness: number, outside: Material, inside: Material, edge: number, seen: Sides = 'both'): Group {
  const group = new Group()
  for (const shape of shapesOf(rings)) {
    const geometry = new ShapeGeometry(shape, 1)
    const back = new Mesh(geometry, inside)
    back.position.z = -thickness
    group.add(new Mesh(geometry, outside), back)
  }
  group.add(new Mesh(walls(rings, thickness), inside), strokes(outlines(rings, thickness, seen), edge))
  return group
}

/** Lines drawn on a face, a hair before it (or behind it, by `side` -1). */
export function drawnLines(drawn: readonly Schemas['DrawnView'][], z: number, side: 1 | -1): Group[] {
  return drawn.map(({ colour, lines }) => {
    const positions: number[] = []
    for (const line of lines) {
      for (let i = 1; i < line.length; i++) {
        const [[ax, ay], [bx, by]] = [line[i - 1]!, line[i]!]
        positions.push(ax, -ay, z + 2 * HAIR * side, bx, -by, z + 2 * HAIR * side)
      }
    }
    return strokes(positions, colour)
  })
}

/** What is printed on a face, below the lines, by the sides as those: one mesh for each colour. */
export function printsOn(prints: readonly Schemas['PrintView'][], z: number, side: 1 | -1): Mesh[] {
  return prints.map(({ colour, rings }) => {
    const mesh = new Mesh(new ShapeGeometry(shapesOf(rings), 1), new MeshLambertMaterial({ color: colour, side: DoubleSide }))
    mesh.position.z = z + (HAIR / 2) * side
    return mesh
  })
}

/** An envelope about a closed card of a bulk: its back, its front that is seen through, its rim. */
export function envelopeAbout(box: readonly [number, number, number, number], bulk: number) {
  const [left, head, right, foot] = box
  const paper = { color: 0xf0e9da, side: DoubleSide, transparent: true }
  const sheet = (opacity: number) =>
    new Mesh(
      new PlaneGeometry(right - left, foot - head),
      new MeshLambertMaterial({ ...paper, opacity, depthWrite: opacity === 1 }),
    )
  const [back, front] = [sheet(1), sheet(0.3)]
  const middle: [number, number] = [(left + right) / 2, -(head + foot) / 2]
  back.position.set(...middle, -bulk - 2)
  front.position.set(...middle, bulk + 2)
  const corners = [
    [left, -head],
    [right, -head],
    [right, -foot],
    [left, -foot],
  ].map(([x, y]) => new Vector3(x, y, bulk + 2))
  const rim = new LineLoop(new BufferGeometry().setFromPoints(corners), new LineBasicMaterial({ color: 0x586674 }))
  return [back, front, rim]
}
