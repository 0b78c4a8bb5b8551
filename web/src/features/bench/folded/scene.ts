/** The folded card in three dimensions. Loaded by itself; draws only when something changed. */
import { Group, Line, Mesh, PerspectiveCamera, Scene, Vector3, WebGLRenderer } from 'three'
import { OrbitControls } from 'three/addons/controls/OrbitControls.js'
import type { Schemas } from '@/shared/api/client'
import { wantsStillness } from '@/shared/motion'
import type { Seen } from '../commands/useExport'
import { drawnLines, envelopeAbout, faceSheet, printsOn } from './meshes'
import { framing } from './framing'
import { layerSheet, paperOf } from './layers'
import { lights } from './lights'
import { FINE, Pace } from './pace'
import { pictureOf, seenFrom } from './picture'
import { foldOf, sheetAt } from './pointing'
import type { Angles } from './poses'
import { disposeStrokes, isShared, seeStrokes } from './strokes'
import { Table } from './table'

type Space = Schemas['SpaceView']

/** Where the card is: in the hand, on a table, or in its envelope. */
export type Place = 'hand' | 'table' | 'envelope'

interface Turn {
  group: Group
  axis: Vector3
  fold: number
  sign: number
}

const TURN_MS = 320
const EDGE = 0x33424f
/** Share of the view's height and width that the card takes. */
const FILLED = 0.8
export class FoldedScene {
  private readonly renderer: WebGLRenderer
  private readonly scene = new Scene()
  private readonly camera = new PerspectiveCamera(28, 1, 1, 9000)
  private readonly controls: OrbitControls
  private card = new Group()
  private around = new Group()
  private table: Table | null = null
  private turns: Turn[] = []
  private groups: Group[] = []
  private sheets: { group: Group; rank: number }[] = []
  private apart = 0
  private space: Space | null = null
  private angles: Angles = []
  private place: Place = 'hand'
  private sized = false
  private moving = 0
  private framed = ''
  private readonly pace = new Pace((ratio) => this.render(ratio), () => this.quiet())
  frames = 0

  constructor(private readonly canvas: HTMLCanvasElement, private readonly quiet: () => number) {
    // smooth edges come from drawing finely once it rests: software that draws could not keep up
    this.renderer = new WebGLRenderer({ canvas, antialias: false, alpha: true })
    this.scene.add(...lights(), this.card, this.around)
    this.controls = new OrbitControls(this.camera, canvas)
    this.controls.enablePan = false
    this.controls.addEventListener('change', () => this.draw())
  }

  resize(width: number, height: number) {
    if (!width || !height) return
    this.renderer.setSize(width, height, false)
    this.camera.aspect = width / height
    this.camera.updateProjectionMatrix()
    // the first frame was chosen before the view had a size
    if (!this.sized) this.reset()
    this.sized = true
    this.draw()
  }

  /** Shows the faces; the view stays as it is turned unless the card has another size. Whether it was framed anew. */
  show(space: Space, angles: Angles, place: Place): boolean {
    this.clear()
    this.space = space
    const [outside, inside] = [paperOf(space.outside, space.light), paperOf(space.inside, space.light)]
    const groups = space.faces.map((face) => faceSheet(face.rings, space.thickness, outside, inside, EDGE))
    space.faces.forEach((face, i) => {
      const group = groups[i]!
      for (const ink of [...printsOn(face.prints, 0, 1), ...drawnLines(face.lines, 0, 1)]) group.add(ink)
      const parent = face.parent === null ? this.card : groups[face.parent]!
      const hinge = face.hinge
      if (!hinge) return void parent.add(group)
      const start = new Vector3(hinge.start[0], -hinge.start[1], hinge.z)
      const end = new Vector3(hinge.end[0], -hinge.end[1], hinge.z)
      const pivot = new Group()
      pivot.position.copy(start)
      group.position.copy(start.clone().negate())
      pivot.add(group)
      parent.add(pivot)
      this.turns.push({ group: pivot, axis: end.sub(start).normalize(), fold: hinge.fold, sign: hinge.sign })
    })
    this.groups = groups
    for (const layer of space.layers) {
      const group = layerSheet(layer, EDGE)
      groups[layer.face]?.add(group)
      this.sheets.push({ group, rank: layer.rank })
    }
    this.setApart(this.apart)
    this.setPlace(place)
    this.turnFolds(angles)
    return this.frame()
  }

  /** Folds at once to angles, as while a slider is drawn. */
  setAngles(angles: Angles) {
    this.moving += 1
    this.turnFolds(angles)
    this.draw()
  }

  /** Folds along a way in a moment, in a place of its own; the view is framed anew where that changes. */
  async moveTo(way: (share: number) => Angles, place: Place, ms = TURN_MS) {
    const changed = place !== this.place
    this.setPlace(place)
    await this.play(way, wantsStillness() ? 0 : ms)
    if (changed) this.reset()
    else this.fit([way(1)])
  }

  /** Draws frame after frame while `at` (0 to 1) runs through; ends early where something else turns it. */
  async play(at: (share: number) => Angles, ms: number, step?: (share: number) => void) {
    this.moving += 1
    const turn = this.moving
    const begun = performance.now()
    let share = 0
    while (share < 1 && turn === this.moving) {
      share = ms ? Math.min((performance.now() - begun) / ms, 1) : 1
      this.turnFolds(at(share))
      step?.(share)
      this.draw()
      await new Promise((resolve) => requestAnimationFrame(resolve))
    }
  }

  stop() {
    this.moving += 1
  }

  /** Layers stand so many mm off the one below each. */
  setApart(mm: number) {
    this.apart = mm
    for (const { group, rank } of this.sheets) group.position.z = rank * mm
    this.draw()
  }

  private turnFolds(angles: Angles) {
    this.angles = angles
    for (const { group, axis, fold, sign } of this.turns) {
      group.setRotationFromAxisAngle(axis, (((angles[fold] ?? 0) * Math.PI) / 180) * sign)
    }
  }

  /** Stands the card on its table, or puts its envelope about it. */
  private setPlace(place: Place) {
    this.place = place
    this.clearAround()
    this.card.quaternion.identity()
    const space = this.space
    if (!space) return
    if (place === 'table' && space.stand) {
      const up = new Vector3(...space.stand.up)
      this.card.quaternion.setFromUnitVectors(up, new Vector3(0, 1, 0))
      this.table = new Table(space.faces, space.stand.table)
      this.around.add(this.table.group)
    } else if (place === 'envelope' && space.envelope) {
      this.around.add(...envelopeAbout(space.envelope, space.faces.length * space.thickness))
    }
  }

  private frame(): boolean {
    const points = this.space?.faces.filter((f) => !f.hinge).flatMap((f) => f.rings.flat()) ?? []
    this.draw()
    if (!points.length) return false
    const span = (values: number[]) => Math.max(...values) - Math.min(...values)
    const size = Math.max(span(points.map((p) => p[0])), span(points.map((p) => p[1])))
    const key = `${Math.round(size / 20)} ${this.space?.eye.map((v) => v.toFixed(1))} ${this.space?.faces.length} ${this.space?.piece}`
    if (key === this.framed) return false
    this.framed = key
    this.reset()
    return true
  }

  /** Back to the view that a card is shown in first. */
  reset() {
    if (!this.space) return
    const { stand, eye } = this.space
    this.lookFrom(this.place === 'table' && stand ? stand.eye : this.place === 'envelope' ? [0.15, 0.08, 1] : eye)
  }

  /** Looked at from a direction. */
  lookFrom(eye: readonly [number, number, number]) {
    if (this.space?.faces.some((f) => f.rings.length)) this.look(new Vector3(...eye).normalize(), this.corners())
  }

  /** As it is turned, but so far away that the card is in view in all of the poses. */
  fit(poses: readonly Angles[]) {
    if (!this.space?.faces.some((f) => f.rings.length)) return
    const now = this.angles
    const points = poses.flatMap((angles) => {
      this.turnFolds(angles)
      return this.corners()
    })
    this.turnFolds(now)
    this.look(this.camera.position.clone().sub(this.controls.target).normalize(), points)
  }

  /** Looks from a direction at the middle of the points, as near as all of them are in view. */
  private look(towards: Vector3, points: readonly Vector3[]) {
    const { middle, distance } = framing(towards, points, this.camera, FILLED)
    this.controls.target.copy(middle)
    this.camera.position.copy(middle).addScaledVector(towards, distance)
    this.controls.update()
    this.draw()
  }

  /** All corners of the card as it is folded now, and of its envelope, in the scene. */
  private corners(): Vector3[] {
    this.card.updateWorldMatrix(true, true)
    const found = this.space!.faces.flatMap((face, i) =>
      face.rings.flat().map(([x, y]) => new Vector3(x, -y, 0).applyMatrix4(this.groups[i]!.matrixWorld)),
    )
    if (this.place !== 'envelope' || !this.space!.envelope) return found
    const [left, head, right, foot] = this.space!.envelope
    return [...found, new Vector3(left, -head, 0), new Vector3(right, -foot, 0)]
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

  /** The fold that the face under a place of the canvas hangs on; null where there is none. */
  foldAt(x: number, y: number): number | null {
    const size = { width: this.canvas.clientWidth, height: this.canvas.clientHeight }
    return this.space ? foldOf(this.space.faces, sheetAt(x, y, size, this.camera, this.card, this.groups)) : null
  }

  seen(): Seen {
    return { angles: this.angles, apart: this.apart, ...seenFrom(this.camera, this.controls.target, this.card) }
  }
  picture(longest: number) {
    return pictureOf(this.renderer, this.scene, this.camera, longest).finally(() => this.draw())
  }
  private draw() {
    this.pace.draw()
  }

  private render(ratio: number) {
    this.frames += 1
    // what is on the screen, for whoever looks by other means than eyes
    Object.assign(this.canvas.dataset, { frames: String(this.frames), angles: this.angles.map(Math.round).join(' '), still: String(ratio >= FINE) })
    if (this.renderer.getPixelRatio() !== ratio) this.renderer.setPixelRatio(ratio)
    seeStrokes(this.camera, ratio >= FINE)
    if (this.space) this.table?.shade(this.card, this.space.faces, this.groups, this.angles.join())
    this.renderer.render(this.scene, this.camera)
  }

  private empty(group: Group) {
    group.traverse((node) => {
      if (node instanceof Mesh || node instanceof Line) {
        node.geometry.dispose()
        ;([] as { dispose(): void }[]).concat(node.material).filter((m) => !isShared(m)).forEach((m) => m.dispose())
      }
    })
    group.clear()
  }

  private clearAround() {
    this.table?.dispose()
    this.table = null
    this.empty(this.around)
  }

  private clear() {
    this.empty(this.card)
    this.turns = []
    this.sheets = []
  }

  dispose() {
    this.stop()
    this.pace.stop()
    this.clear()
    this.clearAround()
    disposeStrokes()
    this.controls.dispose()
    this.renderer.dispose()
  }
}
