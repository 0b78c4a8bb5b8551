/** Layers of the folded card: each a sheet that moves with its face, and can stand off from it. */
import { Color, DoubleSide, Group, MeshLambertMaterial } from 'three'
import type { Schemas } from '@/shared/api/client'
import { drawnLines, faceSheet, printsOn } from './meshes'

type Layer = Schemas['LayerSheetView']

/** A paper's material, through which a share of light goes. */
export function paperOf(colour: string, light: number) {
  const seen = light > 0 ? { transparent: true, opacity: 1 - light, depthWrite: false } : {}
  // lines on it are never half in it
  const behind = { polygonOffset: true, polygonOffsetFactor: 1, polygonOffsetUnits: 2 }
  return new MeshLambertMaterial({ color: new Color(colour), side: DoubleSide, ...behind, ...seen })
}

/** The layer's part, as thick as its paper, at its height before the base's outside. */
export function layerSheet(layer: Layer, edge: number): Group {
  const [outside, inside] = [paperOf(layer.outside, layer.light), paperOf(layer.inside, layer.light)]
  const sheet = faceSheet(layer.rings, layer.high - layer.low, outside, inside, edge, layer.rank < 0 ? 'inside' : 'outside')
  sheet.position.z = layer.high
  const [z, side] = layer.turned ? ([layer.low, -1] as const) : ([layer.high, 1] as const)
  return new Group().add(sheet, ...printsOn(layer.prints, z, side), ...drawnLines(layer.lines, z, side))
}
