import * as v from 'valibot'
import { refuse } from '../../values'
import { chance } from './chance'
import { circle } from './circle'
import { ellipse } from './ellipse'
import { footprint } from './footprint'
import type { ShapeKind } from './kind'
import { joined } from './joined'
import { polygon } from './polygon'
import { rectangle } from './rectangle'
import { regular } from './regular'

/** All kinds of shape that an outline can have; a new one is a file and a line here. */
export const SHAPES = [rectangle, polygon, circle, regular, footprint, ellipse, chance, joined] as const

type ShapeOf<K> = K extends ShapeKind<infer S> ? S : never
export type OutlineShape = ShapeOf<(typeof SHAPES)[number]>

export const OutlineShapeSchema = v.variant('kind', SHAPES.map((k) => k.schema) as never) as unknown as v.GenericSchema<
  unknown,
  OutlineShape
>

/** The kind of a shape. Errors: 'outline' for one that this version does not know. */
export const shapeKind = (shape: Pick<OutlineShape, 'kind'>): ShapeKind<OutlineShape> =>
  (SHAPES.find((k) => k.kind === shape.kind) ??
    refuse(
      'outline',
      `"${shape.kind}" is no outline that this Geotome knows.`,
      'Update Geotome.',
    )) as unknown as ShapeKind<OutlineShape>
