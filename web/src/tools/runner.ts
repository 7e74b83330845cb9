import type { Edit } from '@geotome/core/edits'
import { Refusal } from '@geotome/core/project'
import type { Frame } from '@geotome/core/solid'
import type { Answer, Choices, LiveField, Mark, Taken, Tool, ToolEvent, World } from './kind'
import { TOOLS } from './list'

/** What a runner works with: where the project comes from, and what becomes of the answers. */
export interface Workplace {
  taken: () => Taken | null
  /** the project as it is without the gesture under way; null while none is open */
  world: (id: (n: number) => string) => World | null
  /** gives whether it could be made */
  make: (label: string, edit: () => Edit) => boolean
  /** `isTyped`: a key set it off, and half of a number can be any number */
  show: (edit: (() => Edit) | null, isTyped?: boolean) => void
  refuse: (say: string) => void
  leave: () => void
  /** takes up another tool */
  take: (next: Taken) => void
  pick: (what: { kind: 'mass'; ids: string[] }) => void
  /** calls back when another tool may have been taken up */
  follow: (changed: () => void) => void
}

/** A tool at work, as it is drawn. */
export interface Running {
  taken: Taken
  tool: Pick<Tool<unknown>, 'name' | 'aims'>
  hint: string
  step: string
  fields: LiveField[]
  choices: Choices | null
  marks: Mark[]
  plane: Frame
}

/**
 * Runs the tool that is taken up: hands it what happens, and does what it answers. Events may come faster than the page is drawn: each goes
 * on from what the one before it made.
 */
export function createRunner(place: Workplace) {
  let now: {
    taken: Taken
    tool: Tool<unknown>
    state: unknown
    ids: string[]
    drawn: Running | null
    marks: Mark[]
  } | null = null
  const listeners = new Set<() => void>()
  const tell = () => listeners.forEach((l) => l())

  const current = () => {
    const taken = place.taken()
    if (taken === (now?.taken ?? null)) return now
    const tool = taken && TOOLS.find((t) => t.name === taken.tool)
    const was = now
    now = taken && tool ? { taken, tool, state: tool.begin(taken), ids: [], drawn: null, marks: [] } : null
    // What the tool that was put down has shown is shown no longer. Whoever hears of that finds the new one.
    if (was) place.show(null)
    return now
  }
  const worldOf = (ids: string[]) => place.world((n) => (ids[n] ??= crypto.randomUUID()))

  const done = (answer: Answer<unknown>, isTyped: boolean): void => {
    const at = now
    if (!at) return
    at.state = answer.state
    if (answer.tried !== undefined) place.show(answer.tried, isTyped)
    if (answer.refused) place.refuse(answer.refused)
    if (answer.made && place.make(answer.made.label, answer.made.edit)) {
      at.ids = []
      if (answer.made.then === 'end') place.leave()
      else at.state = answer.made.then
      if (answer.made.picks) place.pick(answer.made.picks)
    }
    if (answer.next) place.take(answer.next)
    else if (answer.end) place.leave()
  }

  /** The marks of a tool; while half of a number is typed that cannot be drawn, those of before. */
  const marksOf = (at: NonNullable<typeof now>, world: World, plane: Frame): Mark[] => {
    try {
      return (at.marks = at.tool.marks(at.state, world, plane, at.taken))
    } catch (e) {
      if (!(e instanceof Refusal)) throw e
      return at.marks
    }
  }

  place.follow(() => {
    const before = now
    if (current() !== before) tell()
  })
  return {
    /** Hands an event to the tool; false where none is taken up. */
    answer(event: ToolEvent): boolean {
      const at = current()
      const world = at && worldOf(at.ids)
      if (!at || !world) return false
      try {
        done(at.tool.answer(at.state, event, world, at.taken), event.kind === 'type')
      } catch (e) {
        if (!(e instanceof Refusal)) throw e
        place.refuse(e.message)
      }
      at.drawn = null
      tell()
      return true
    },
    /** What is drawn of the tool at work: the same object until something changes. */
    running(): Running | null {
      const at = current()
      if (!at) return null
      const world = worldOf(at.ids)
      if (!world) return null
      if (at.drawn) return at.drawn
      const plane = at.tool.plane(at.taken, world)
      return (at.drawn = {
        taken: at.taken,
        tool: at.tool,
        plane,
        hint: at.tool.hint(at.state, world, at.taken),
        step: at.tool.step(at.state),
        fields: at.tool.fields(at.state, world, at.taken),
        choices: at.tool.choices(at.state, at.taken),
        marks: marksOf(at, world, plane),
      })
    },
    subscribe(listen: () => void) {
      listeners.add(listen)
      return () => void listeners.delete(listen)
    },
  }
}

export type Runner = ReturnType<typeof createRunner>
