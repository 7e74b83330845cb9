import { addReadLevels } from '@geotome/core/groundwork'
import { levelHeights } from '@geotome/core/levels'
import { numbersOf, readMarks, readTyped, Refusal, scalingOf, showNumber, type ReadMark } from '@geotome/core/project'
import { labelled, type BenchAnswer, type BenchWorld, type Picking, type Task } from './kind'

/** What is said of a mark by hand. */
export interface Row {
  name?: string
  kind?: 'storey' | 'mark'
  take?: boolean
}

export interface ReadingLevels extends Picking {
  /** typed: the height of the first mark, and what heights are rounded to */
  zero: string
  stride: string
  stacked: boolean
  rows: Record<number, Row>
}

/**
 * Level marks clicked on a calibrated section or elevation become levels: heights rounded by a stride, doubles left out until they are
 * confirmed.
 */
export const levelsTask: Task<ReadingLevels> = {
  name: 'levels',
  label: 'Read levels',
  begin: ({ project }) => ({
    points: [],
    zero: '0',
    stride: { m: '0.05', mm: '50', ft: '1"' }[project.unit],
    stacked: true,
    rows: {},
  }),
  answer: (s, event, world) => {
    switch (event.kind) {
      case 'pick':
        return { state: { ...s, points: [...s.points, event.at] } }
      case 'change':
        return { state: { ...s, ...event.set } }
      case 'accept':
        return event.how === 'make' ? made(s, world) : { state: s }
      case 'key':
        return null
    }
  },
  hint: (s, { picture }) =>
    picture.pairs.length === 0
      ? 'Calibrate the picture first: heights mean nothing yet.'
      : s.points.length === 0
        ? 'Click a level mark whose height you know'
        : 'Click the other level marks, in any order. Escape takes the last one back',
  lines: (s, world) =>
    marksOf(s, world).map((m, i) => ({
      points: [m.px],
      closed: false,
      tone: m.repeats === null ? 'kept' : 'live',
      label: `${i + 1}  ${m.height > 0 ? '+' : ''}${showNumber(m.height, 'length', world.project)}`,
    })),
}

/** The marks that were clicked, with their heights, m: the first has the height typed for it. */
export function marksOf(s: ReadingLevels, { project, scheme, picture }: BenchWorld): ReadMark[] {
  const read = (text: string) => {
    try {
      return readTyped(text, 'length', project, scheme).value
    } catch (e) {
      if (e instanceof Refusal) return null
      throw e
    }
  }
  const [first, height, stride] = [s.points[0], read(s.zero), read(s.stride)]
  return first && height !== null && stride !== null
    ? readMarks(scalingOf(picture, numbersOf(project, null)), { px: first, height }, s.points, stride)
    : []
}

/** The level that stands at a height already; null where none does. */
export const levelAt = ({ project, scheme }: BenchWorld, height: number): string | null =>
  levelHeights(project, scheme).find((l) => Math.abs(l.height - height) < 1e-4)?.name ?? null

/** Whether a mark is to become a level: as ticked, else unless it repeats another one or a level stands there. */
export const isTaken = (s: ReadingLevels, world: BenchWorld, mark: ReadMark, i: number): boolean =>
  s.rows[i]?.take ?? (mark.repeats === null && levelAt(world, mark.height) === null)

function made(s: ReadingLevels, world: BenchWorld): BenchAnswer<ReadingLevels> {
  const { project, scheme, picture, mint } = world
  const read = marksOf(s, world)
    .map((m, i) => ({ ...m, i }))
    .filter((m) => isTaken(s, world, m, m.i))
    .sort((a, b) => a.height - b.height)
    .map((m) => ({
      height: m.height,
      name: s.rows[m.i]?.name?.trim() || `Read ${m.i + 1}`,
      kind: s.rows[m.i]?.kind ?? ('storey' as const),
    }))
  if (read.length === 0) return { state: s }
  const edit = () => addReadLevels(project, scheme, mint, read, s.stacked)
  return { state: s, made: { label: labelled('read from', picture), edit, then: 'close' } }
}
