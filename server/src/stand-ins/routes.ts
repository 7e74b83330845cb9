import { Router } from 'express'
import { setImmediate } from 'node:timers/promises'
import * as v from 'valibot'
import { Refusal } from '@geotome/core/project'
import { checked } from '../http/problems'
import { madeUpGround } from './made-up-ground'

/** so many heights are given at a time */
const MOST_HEIGHTS = 250_000

const Number_ = v.pipe(v.string(), v.transform(Number), v.number('is a number'), v.finite())
const Extent = v.pipe(
  v.object({ x0: Number_, y0: Number_, x1: Number_, y1: Number_ }),
  v.check(
    ({ x0, y0, x1, y1 }) => x1 > x0 && y1 > y0 && x1 - x0 <= 2000 && y1 - y0 <= 2000,
    'the extent is up to 2000 m wide and deep',
  ),
)
const Scan = v.object({ count: v.pipe(Number_, v.integer(), v.minValue(3), v.maxValue(20000)) })
const Heights = v.object({
  latitude: v.pipe(Number_, v.minValue(-90), v.maxValue(90)),
  longitude: v.pipe(Number_, v.minValue(-180), v.maxValue(180)),
  step: v.pipe(Number_, v.minValue(1, 'the step is at least 1 m'), v.maxValue(200)),
})

/** /api/stand-ins: small simulated devices and services, in place of real ones outside; what they give is made up. */
export function standInRoutes(): Router {
  const routes = Router()

  /** A survey scanner on the site: sends points, a line of JSON each, as it turns. */
  routes.get('/scanner', (request, response) => {
    const { x0, y0, x1, y1 } = checked(Extent, pick(request.query, ['x0', 'y0', 'x1', 'y1']))
    const { count } = checked(Scan, pick(request.query, ['count']))
    response.set({ 'content-type': 'application/x-ndjson', 'cache-control': 'no-store, no-transform' })
    const next = chance(count)
    let sent = 0
    const timer = setInterval(() => {
      const lines: string[] = []
      for (let i = 0; i < Math.max(10, count / 20) && sent < count; i++, sent++) {
        const [x, y] = [x0 + next() * (x1 - x0), y0 + next() * (y1 - y0)]
        // An instrument is right to some millimetres.
        lines.push(JSON.stringify([mm(x), mm(y), mm(madeUpGround(x, y) + (next() - 0.5) * 0.006)]))
      }
      response.write(`${lines.join('\n')}\n`)
      if (sent >= count) {
        clearInterval(timer)
        response.end()
      }
    }, 60)
    request.on('close', () => clearInterval(timer))
  })

  /** A service that knows the terrain's heights around a place: a grid, from its south-west corner, row by row. */
  routes.get('/heights', async (request, response) => {
    const { x0, y0, x1, y1 } = checked(Extent, pick(request.query, ['x0', 'y0', 'x1', 'y1']))
    const { latitude, longitude, step } = checked(Heights, pick(request.query, ['latitude', 'longitude', 'step']))
    const [nx, ny] = [Math.floor((x1 - x0) / step) + 1, Math.floor((y1 - y0) / step) + 1]
    if (nx * ny > MOST_HEIGHTS)
      throw new Refusal(
        'size',
        `The grid would have ${nx * ny} heights; the service gives up to ${MOST_HEIGHTS} at a time.`,
        'Ask with a larger step, or for a smaller extent.',
      )
    // Another place has other ground: the same hills, shifted.
    const [dx, dy] = [(longitude * 111) % 40, (latitude * 111) % 40]
    const heights: number[] = []
    for (let row = 0; row < ny; row++) {
      for (let i = 0; i < nx; i++)
        heights.push(Math.round(100 * madeUpGround(x0 + i * step + dx, y0 + row * step + dy)) / 100)
      // Others have their turn between two rows.
      await setImmediate()
    }
    response.json({ x0, y0, step, nx, ny, heights })
  })
  return routes
}

const pick = (query: object, names: string[]) =>
  Object.fromEntries(names.map((n) => [n, (query as Record<string, unknown>)[n]]))
const mm = (v: number) => Math.round(v * 1000) / 1000

function chance(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return state / 2 ** 32
  }
}
