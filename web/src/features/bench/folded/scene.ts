/** The folded card in three dimensions. Loaded by itself; draws only when something changed. */
import {
  AmbientLight,
  Box3,
  BufferAttribute,
  BufferGeometry,
  Color,
  DirectionalLight,
  DoubleSide,
  Group,
  LineBasicMaterial,
  LineLoop,
  Mesh,
  MeshLambertMaterial,
  PerspectiveCamera,
  Scene,
  Shape,
  ShapeGeometry,
  Sphere,
  Vector2,
  Vector3,
  WebGLRenderer,
} from 'three'
import { OrbitControls } from 'three/addons/controls/OrbitControls.js'
import type { Schemas } from '@/shared/api/client'

type Space = Schemas['SpaceView']
type Face = Schemas['FaceView']
type Ring = readonly (readonly [number, number])[]

interface Turn {
  group: Group
  axis: 'x' | 'y'
  sign: number
}

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

function wall(ring: Ring, thickness: number): BufferGeometry {
  const positions: number[] = []
  const n = ring.length
  for (let i = 0; i < n; i += 1) {
    const [ax, ay] = ring[i]!
    const [bx, by] = ring[(i + 1) % n]!
    positions.push(ax, -ay, 0, bx, -by, 0, bx, -by, -thickness)
    positions.push(ax, -ay, 0, bx, -by, -thickness, ax, -ay, -thickness)
  }
  const geometry = new BufferGeometry()
  geometry.setAttribute('position', new BufferAttribute(new Float32Array(positions), 3))
  geometry.computeVertexNormals()
  return geometry
}

export class FoldedScene {
  private readonly renderer: WebGLRenderer
  private readonly scene = new Scene()
  private readonly camera = new PerspectiveCamera(28, 1, 1, 6000)
  private readonly controls: OrbitControls
  private card = new Group()
  private turns: Turn[] = []
  private angle = 70
  private waiting = false
  private framed = ''
  frames = 0

  constructor(canvas: HTMLCanvasElement) {
    this.renderer = new WebGLRenderer({ canvas, antialias: true, alpha: true })
    this.scene.add(new AmbientLight(0xffffff, 1.9))
    const light = new DirectionalLight(0xfff4e2, 1.6)
    light.position.set(-250, 420, 520)
    this.scene.add(light, this.card)
    this.controls = new OrbitControls(this.camera, canvas)
    this.controls.enablePan = false
    this.controls.addEventListener('change', () => this.draw())
  }

  resize(width: number, height: number) {
    if (!width || !height) return
    this.renderer.setPixelRatio(Math.min(window.devicePixelRatio, 2))
    this.renderer.setSize(width, height, false)
    this.camera.aspect = width / height
    this.camera.updateProjectionMatrix()
    this.draw()
  }

  /** Shows the faces; the view stays as it is turned unless the card has another size. */
  show(space: Space) {
    this.clear()
    const outside = new MeshLambertMaterial({ color: new Color(space.outside), side: DoubleSide })
    const inside = new MeshLambertMaterial({ color: new Color(space.inside), side: DoubleSide })
    const edge = new LineBasicMaterial({ color: 0x33424f })
    const groups = space.faces.map((face) => this.face(face, space.thickness, outside, inside, edge))
    space.faces.forEach((face, i) => {
      const group = groups[i]!
      const parent = face.parent === null ? this.card : groups[face.parent]!
      if (!face.hinge) {
        parent.add(group)
        return
      }
      // the hinge lies on the inside face, where a crease bends
      const { axis, at } = face.hinge
      const pivot = new Group()
      const shift = axis === 'x' ? new Vector3(at, 0, -space.thickness) : new Vector3(0, -at, -space.thickness)
      pivot.position.copy(shift)
      group.position.copy(shift.clone().negate())
      pivot.add(group)
      parent.add(pivot)
      this.turns.push({ group: pivot, axis, sign: this.signOf(face) })
    })
    this.setAngle(this.angle)
    this.frame(space)
  }

  /** A mountain turns what hangs on it away from the viewer of the outside. */
  private signOf(face: Face): number {
    const { axis, at, direction } = face.hinge!
    const xs = face.rings.flat().map((p) => (axis === 'x' ? p[0] : -p[1]))
    const middle = (Math.min(...xs) + Math.max(...xs)) / 2
    const beyond = middle > (axis === 'x' ? at : -at) ? 1 : -1
    const away = axis === 'x' ? beyond : -beyond
    return direction === 'valley' ? -away : away
  }

  private face(
    face: Face,
    thickness: number,
    outside: MeshLambertMaterial,
    inside: MeshLambertMaterial,
    edge: LineBasicMaterial,
  ): Group {
    const group = new Group()
    const rings = face.rings as unknown as Ring[]
    for (const shape of shapesOf(rings)) {
      const geometry = new ShapeGeometry(shape, 1)
      const back = new Mesh(geometry, inside)
      back.position.z = -thickness
      group.add(new Mesh(geometry, outside), back)
    }
    for (const ring of rings) {
      group.add(new Mesh(wall(ring, thickness), inside))
      const points = ring.map(([x, y]) => new Vector3(x, -y, 0.06))
      group.add(new LineLoop(new BufferGeometry().setFromPoints(points), edge))
      const under = ring.map(([x, y]) => new Vector3(x, -y, -thickness - 0.06))
      group.add(new LineLoop(new BufferGeometry().setFromPoints(under), edge))
    }
    return group
  }

  /** Opened by `angle` degrees: 0 is closed, 180 flat. */
  setAngle(angle: number) {
    this.angle = angle
    const fold = ((180 - angle) * Math.PI) / 180
    for (const { group, axis, sign } of this.turns) {
      group.rotation.set(axis === 'y' ? fold * sign : 0, axis === 'x' ? fold * sign : 0, 0)
    }
    this.draw()
  }

  private frame(space: Space) {
    const points = space.faces.filter((f) => !f.hinge).flatMap((f) => f.rings.flat())
    if (!points.length) return this.draw()
    const xs = points.map((p) => p[0])
    const ys = points.map((p) => -p[1])
    const size = Math.max(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys))
    const level = space.faces.some((f) => f.hinge?.axis === 'y')
    const key = `${Math.round(size / 20)} ${level}`
    if (key === this.framed) return this.draw()
    this.framed = key
    this.reset(space)
  }

  /** Back to the view that a card is shown in first. */
  reset(space: Space) {
    if (!space.faces.some((f) => f.rings.length)) return
    const level = space.faces.some((f) => f.hinge?.axis === 'y')
    const way = level ? new Vector3(0.8, 0.5, 1.5) : new Vector3(0.85, 0.42, 1.75)
    this.card.updateWorldMatrix(true, true)
    const { center, radius } = new Box3().setFromObject(this.card).getBoundingSphere(new Sphere())
    const half = Math.min(this.camera.fov, this.camera.fov * this.camera.aspect) / 2
    const distance = (radius * 1.02) / Math.sin((half * Math.PI) / 180)
    this.controls.target.copy(center)
    this.camera.position.copy(center).add(way.normalize().multiplyScalar(distance))
    this.controls.update()
    this.draw()
  }

  /** Turned by the keys, in degrees. */
  turn(across: number, down: number) {
    const offset = this.camera.position.clone().sub(this.controls.target)
    offset.applyAxisAngle(new Vector3(0, 1, 0), (-across * Math.PI) / 180)
    const side = new Vector3().crossVectors(new Vector3(0, 1, 0), offset).normalize()
    const turned = offset.clone().applyAxisAngle(side, (-down * Math.PI) / 180)
    const steep = Math.abs(turned.clone().normalize().y)
    this.camera.position.copy(this.controls.target).add(steep < 0.98 ? turned : offset)
    this.controls.update()
    this.draw()
  }

  private draw() {
    if (this.waiting) return
    this.waiting = true
    requestAnimationFrame(() => {
      this.waiting = false
      this.frames += 1
      this.renderer.render(this.scene, this.camera)
    })
  }

  private clear() {
    this.card.traverse((node) => {
      if (node instanceof Mesh || node instanceof LineLoop) {
        node.geometry.dispose()
        ;([] as { dispose(): void }[]).concat(node.material).forEach((m) => m.dispose())
      }
    })
    this.scene.remove(this.card)
    this.card = new Group()
    this.turns = []
    this.scene.add(this.card)
  }

  dispose() {
    this.clear()
    this.controls.dispose()
    this.renderer.dispose()
  }
}
