import * as v from 'valibot'
import { NeighbourSchema, WingSchema } from '../ground'
import { KeptMeasureSchema, PictureSchema, TraceSchema } from '../picture'
import { RepeatSchema } from '../repeats'
import { RuleSchema } from '../rules'
import { IdSchema } from '../values'
import { BriefLineSchema } from './brief'
import { PlateEditSchema } from './plate-edits'
import {
  BuildUpSchema,
  DialSchema,
  DialSetSchema,
  LevelSchema,
  MassSchema,
  MaterialSchema,
  MuteSchema,
  PartSchema,
  ProfileSchema,
  UseSchema,
  ViewSchema,
} from './things'

type ThingSchema = v.StrictObjectSchema<v.ObjectEntries & { id: v.GenericSchema<string> }, undefined>

/**
 * A collection of things by their ids. `one` is the word for one of them, and names its edits ("level.add"); `apart` is there where no two
 * may have one name, and is what a second one is called in the sentence that refuses it.
 */
export interface Collection<N extends string = string, S extends ThingSchema = ThingSchema> {
  one: N
  thing: S
  apart: string | null
}

/** A collection that older files do not have yet is empty in them. */
const later = <N extends string, S extends ThingSchema>(one: N, thing: S, apart: string | null = null) => ({
  one,
  thing,
  apart,
  record: v.optional(v.record(IdSchema, thing), {}),
})
const always = <N extends string, S extends ThingSchema>(one: N, thing: S, apart: string | null = null) => ({
  one,
  thing,
  apart,
  record: v.record(IdSchema, thing),
})

/** The collections of a project. A new one is its schema, and a line here: schema, edits, integrity and blank project follow. */
export const PROJECT_COLLECTIONS = {
  neighbours: later('neighbour', NeighbourSchema),
  pictures: later('picture', PictureSchema),
  measures: later('measure', KeptMeasureSchema),
  traces: later('trace', TraceSchema),
  uses: always('use', UseSchema, 'use'),
  dials: always('project-dial', DialSchema),
  buildUps: always('build-up', BuildUpSchema),
  materials: later('material', MaterialSchema, 'material'),
  profiles: later('profile', ProfileSchema, 'profile'),
  brief: later('brief-line', BriefLineSchema, 'line of the brief'),
} as const

/** The collections of a scheme, likewise. */
export const SCHEME_COLLECTIONS = {
  dials: always('dial', DialSchema),
  dialSets: later('dial-set', DialSetSchema, 'set of dials'),
  levels: always('level', LevelSchema, 'level'),
  masses: always('mass', MassSchema),
  parts: always('part', PartSchema),
  repeats: later('repeat', RepeatSchema),
  rules: later('rule', RuleSchema, 'rule'),
  wings: later('wing', WingSchema, 'wing'),
  plateEdits: later('plate-edit', PlateEditSchema),
  views: later('view', ViewSchema, 'kept view'),
  mutes: later('mute', MuteSchema),
} as const

export type ProjectCollections = typeof PROJECT_COLLECTIONS
export type SchemeCollections = typeof SCHEME_COLLECTIONS
type WithRecord = Record<string, { record: v.GenericSchema }>

/** The keys of a list of collections. */
export const keysOf = <C extends object>(collections: C) => Object.keys(collections) as (keyof C & string)[]

/** The fields that hold the collections, for the schema of what holds them. */
export const recordsOf = <C extends WithRecord>(collections: C) =>
  Object.fromEntries(Object.entries(collections).map(([key, c]) => [key, c.record])) as {
    [K in keyof C]: C[K]['record']
  }

/** The same fields with nothing in them yet. */
export const emptyOf = <C extends object>(collections: C) =>
  Object.fromEntries(keysOf(collections).map((key) => [key, {}])) as { [K in keyof C]: Record<string, never> }
