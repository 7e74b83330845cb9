import { afterEach, describe, expect, it } from 'vitest'
import { ThreadPool } from './pool'

let pool: ThreadPool<unknown>
const open = (threads: number) =>
  (pool = new ThreadPool<unknown>({
    script: new URL('./try-thread.mjs', import.meta.url),
    threads,
    atOnce: 1,
    ofEach: 1,
    memory: 40,
    canEnd: true,
  }))
const wish = (project: string, seconds = 30, gone?: AbortSignal) => ({ project, what: 'The export', seconds, gone })
afterEach(() => pool.close())

describe('a pool of threads', () => {
  it('answers others while one piece of work stands still, and ends that one with a sentence', async () => {
    open(2)
    const still = pool.ask('stand still', wish('long', 2))
    const others = await Promise.all([1, 2, 3].map((n) => pool.ask({ n }, wish(`p${n}`))))
    expect(others).toEqual([{ n: 1 }, { n: 2 }, { n: 3 }])
    await expect(still).rejects.toThrow('The export took longer than 2 s and was ended. Divide the project')
    expect(await pool.ask({ n: 4 }, wish('long'))).toEqual({ n: 4 })
  })
  it('two pieces of work of one project leave the other threads to others', async () => {
    open(2)
    const long = [0, 1].map(() => pool.ask('stand still', wish('long', 1)))
    for (const l of long) l.catch(() => {})
    expect(await pool.ask({ n: 1 }, wish('other'))).toEqual({ n: 1 })
    expect((await Promise.allSettled(long)).map((l) => l.status)).toEqual(['rejected', 'rejected'])
  })
  it('says what needs too much memory, and goes on', async () => {
    open(1)
    await expect(pool.ask('fill', wish('full'))).rejects.toThrow(/needs more memory than the server has/)
    expect(await pool.ask({ n: 1 }, wish('full'))).toEqual({ n: 1 })
  })
  it('drops what waits, and ends what is under way, when its asker has gone', async () => {
    open(1)
    const [first, second] = [new AbortController(), new AbortController()]
    const under = pool.ask('stand still', wish('a', 30, first.signal))
    const waits = pool.ask({ n: 1 }, wish('b', 30, second.signal))
    second.abort()
    await expect(waits).rejects.toThrow(/has gone/)
    first.abort()
    await expect(under).rejects.toThrow(/has gone/)
    expect(await pool.ask({ n: 2 }, wish('c'))).toEqual({ n: 2 })
  })
})
