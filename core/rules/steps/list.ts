import { refuse } from '../../values'
import { bands } from './bands'
import { choose } from './choose'
import { divide } from './divide'
import { dress } from './dress'
import { fins } from './fins'
import { keep } from './keep'
import type { StepKind } from './kind'
import { move } from './move'
import { number } from './number'
import { place } from './place'
import { plan } from './plan'
import { repeat } from './repeat'
import { ring } from './ring'
import { side } from './side'
import { site } from './site'
import { sort } from './sort'
import { storeys } from './storeys'
import { strips } from './strips'

/** All kinds of step; a new one is a file and a line here. */
export const STEPS = [
  plan,
  site,
  bands,
  fins,
  divide,
  ring,
  choose,
  keep,
  number,
  side,
  strips,
  place,
  storeys,
  move,
  repeat,
  dress,
  sort,
] as const

type StepOf<K> = K extends StepKind<infer S> ? S : never
export type Step = StepOf<(typeof STEPS)[number]>

/** The kind of a step. Errors: 'edit' for one that this version does not know. */
export const stepKind = (step: Pick<Step, 'step'>): StepKind<Step> =>
  (STEPS.find((k) => k.step === step.step) ??
    refuse(
      'edit',
      `"${step.step}" is no step that this Geotome knows.`,
      'Update Geotome.',
    )) as unknown as StepKind<Step>
