/** A round table under a standing card, with the soft shadow that the card casts on it. */
import { CanvasTexture, CircleGeometry, DoubleSide, Group, Mesh, MeshBasicMaterial, MeshLambertMaterial, PlaneGeometry, SRGBColorSpace, Vector3, type Object3D } from 'three'
import type { Ring } from './meshes'

/** px of the shadow's picture, which is drawn larger: that makes its edges soft. */
const SIZE = 160
/** Where light comes from, and how wide its source is: the shadow is the mean of all of its places. */
const FROM = new Vector3(-250, 420, 520)
const WIDE = 70
const PLACES: readonly (readonly [number, number])[] = [[0, 0], [1, 0], [-1, 0], [0, 1], [0, -1], [0.7, 0.7], [-0.7, 0.7], [0.7, -0.7], [-0.7, -0.7]]
const DARK = 0.3
const COLOUR = '#3a2c18'

/** Where the shadow of a place falls on a table at a height, for light from a direction: x and z. */
export function fallen(place: Vector3, from: Vector3, height: number): [number, number] {
  const share = (place.y - height) / from.y
  return [place.x - from.x * share, place.z - from.z * share]
}


export class Table {
  readonly group = new Group()
  private readonly radius: number
  private readonly middle: number
  private readonly one = document.createElement('canvas')
  private readonly all = document.createElement('canvas')
  private readonly texture: CanvasTexture
  private shaded = ''

  constructor(faces: readonly { rings: readonly Ring[] }[], private readonly height: number) {
    const points = faces.flatMap((f) => f.rings.flat())
    const size = Math.max(...points.map((p) => Math.abs(p[0])), ...points.map((p) => Math.abs(p[1])), 50)
    const xs = points.map((p) => p[0])
    this.radius = size * 1.5
    this.middle = (Math.min(...xs) + Math.max(...xs)) / 2
    this.one.width = this.one.height = this.all.width = this.all.height = SIZE
    this.texture = new CanvasTexture(this.all)
    this.texture.colorSpace = SRGBColorSpace
    const top = new Mesh(
      new CircleGeometry(this.radius, 64),
      new MeshLambertMaterial({ color: 0xe2d8c4, transparent: true, opacity: 0.75, side: DoubleSide }),
    )
    const shadow = new Mesh(
      new PlaneGeometry(2 * this.radius, 2 * this.radius),
      new MeshBasicMaterial({ map: this.texture, transparent: true, depthWrite: false }),
    )
    for (const [flat, below] of [[top, 0.2], [shadow, 0.1]] as const) {
      flat.rotation.x = -Math.PI / 2
      flat.position.set(this.middle, this.height - below, 0)
      this.group.add(flat)
    }
    shadow.renderOrder = 1
  }

  /** The shadow of a card's faces as they are turned now; drawn anew where `pose` is another one. */
  shade(card: Object3D, faces: readonly { rings: readonly Ring[] }[], sheets: readonly Object3D[], pose: string) {
    const [one, all] = [this.one.getContext('2d'), this.all.getContext('2d')]
    if (pose === this.shaded || !one || !all) return
    this.shaded = pose
    all.clearRect(0, 0, SIZE, SIZE)
    all.globalAlpha = DARK / PLACES.length
    one.fillStyle = COLOUR
    card.updateWorldMatrix(true, true)
    const places = faces.map(({ rings }, i) =>
      rings.map((ring) => ring.map(([x, y]) => new Vector3(x, -y, 0).applyMatrix4(sheets[i]!.matrixWorld))),
    )
    const scale = SIZE / (2 * this.radius)
    for (const [across, along] of PLACES) {
      const from = FROM.clone().add(new Vector3(across * WIDE, 0, along * WIDE))
      one.clearRect(0, 0, SIZE, SIZE)
      for (const rings of places) {
        one.beginPath()
        for (const ring of rings) {
          ring.forEach((place, i) => {
            const [x, z] = fallen(place, from, this.height)
            const at = [(x - this.middle + this.radius) * scale, (z + this.radius) * scale] as const
            if (i) one.lineTo(...at)
            else one.moveTo(...at)
          })
          one.closePath()
        }
        one.fill('evenodd')
      }
      all.drawImage(this.one, 0, 0)
    }
    this.fade(all)
    this.texture.needsUpdate = true
  }

  /** Nothing of the shadow falls beyond the table. */
  private fade(all: CanvasRenderingContext2D) {
    const middle = SIZE / 2
    const edge = all.createRadialGradient(middle, middle, middle * 0.8, middle, middle, middle * 0.97)
    edge.addColorStop(0, 'rgb(0 0 0 / 100%)')
    edge.addColorStop(1, 'rgb(0 0 0 / 0%)')
    all.globalAlpha = 1
    all.globalCompositeOperation = 'destination-in'
    all.fillStyle = edge
    all.fillRect(0, 0, SIZE, SIZE)
    all.globalCompositeOperation = 'source-over'
  }

  dispose() {
    this.texture.dispose()
  }
}
