import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Turns } from './turns'

const named = (project: string, n: number) => ({ project, n })

describe('turns', () => {
  it('a project with a thousand pieces of work lets another one wait for one of them', () => {
    const turns = new Turns<{ project: string; n: number }>(1)
    for (let n = 0; n < 1000; n++) turns.add(named('large', n))
    const first = turns.next()
    turns.add(named('small', 0))
    expect(turns.next()?.project).toBe('small')
    expect(turns.next()).toBeNull()
    if (first) turns.ended(first)
    expect(turns.next()).toEqual(named('large', 1))
  })
  it('drops what has not begun, and nothing else', () => {
    const turns = new Turns<{ project: string; n: number }>(1)
    const [one, two] = [named('a', 1), named('a', 2)]
    turns.add(one)
    turns.add(two)
    expect(turns.next()).toBe(one)
    expect([turns.drop(one), turns.drop(two), turns.drop(two)]).toEqual([false, true, false])
    turns.ended(one)
    expect(turns.next()).toBeNull()
  })
  it('whatever comes in whatever order: all is done, in order within a project, never more of one than may be', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.constantFrom('a', 'b', 'c'), fc.boolean()), { maxLength: 60 }),
        fc.integer({ min: 1, max: 3 }),
        (steps, most) => {
          const turns = new Turns<{ project: string; n: number }>(most)
          const underWay: { project: string; n: number }[] = []
          const done = new Map<string, number[]>()
          const begin = () => {
            for (let next = turns.next(); next; next = turns.next()) {
              underWay.push(next)
              done.set(next.project, [...(done.get(next.project) ?? []), next.n])
              expect(underWay.filter((w) => w.project === next.project).length).toBeLessThanOrEqual(most)
            }
          }
          const end = () => {
            const oldest = underWay.shift()
            if (oldest) turns.ended(oldest)
            begin()
          }
          const added = new Map<string, number[]>()
          steps.forEach(([project, alsoEnds], n) => {
            turns.add(named(project, n))
            added.set(project, [...(added.get(project) ?? []), n])
            begin()
            if (alsoEnds) end()
          })
          while (underWay.length) end()
          expect(done).toEqual(added)
        },
      ),
    )
  })
})
