import { describe, expect, it } from 'vitest'
import { NO_LOCATION } from '../project'
import { readSite, type Answers } from './index'

const bytes = (text: string) => new TextEncoder().encode(text)
const read = async (text: string | Uint8Array, answers: Answers = {}) =>
  (await readSite('site.csv', typeof text === 'string' ? bytes(text) : text, NO_LOCATION, { answers })).read

describe('points as text', () => {
  it('without heights are a site, with a head or without', async () => {
    for (const head of ['', 'x,y\n', 'E;N\n'])
      expect(
        (await read(`${head}0,0\n40,0\n40,25\n0,25\n`.replaceAll(',', head.includes(';') ? ';' : ','))).outlines,
      ).toMatchObject([
        { points: [[0, 0], [40, 0], [40, 25], [0, 25]] }, // prettier-ignore
      ])
  })
  it('with heights are ground; those that come back to the first are a site too', async () => {
    const ground = await read('0,0,1\n40,0,1\n40,25,2\n0,25,2\n')
    expect([ground.points.length, ground.outlines.length]).toEqual([4, 0])
    expect((await read('0,0,1\n40,0,1\n40,25,2\n0,25,2\n0,0,1\n')).outlines).toHaveLength(1)
  })
  it('whose head names their columns are read in that order, and nothing is asked', async () => {
    const named = await read('Hochwert;Rechtswert;Höhe\n500;300;12\n510;320;13\n')
    expect(named.asks).toEqual([])
    expect(named.points[0]).toEqual([300, 500, 12])
    const byNumber = await read('no,north,east,height\n1,5,70,2\n2,6,80,3\n')
    expect(byNumber.points).toEqual([[70, 5, 2], [80, 6, 3]]) // prettier-ignore
    expect((await read('lat,lon\n50.1,8.6\n50.2,8.6\n50.2,8.7\n')).outlines[0]?.points).toHaveLength(3)
  })
  it('whose order nobody says are asked for, and taken as answered', async () => {
    const text = '1,500,300,12\n2,510,320,13\n'
    const first = await read(text)
    expect(first.asks.find((a) => a.what === 'order')?.taken).toBe('east')
    expect(first.points[0]).toEqual([500, 300, 12])
    expect((await read(text, { order: 'north' })).points[0]).toEqual([300, 500, 12])
  })
  it('take other signs for minus, grouped digits, commas for points, and UTF-16', async () => {
    expect((await read('x;y;z\n\u22121,5;2,25;\u22120,5\n')).points).toEqual([[-1.5, 2.25, -0.5]])
    expect((await read('x;y;z\n1.234,56;2.000,00;3,5\n')).points).toEqual([[1234.56, 2000, 3.5]])
    expect((await read('x;y;z\n1 234,56;12 000,00;3,5\n')).points).toEqual([[1234.56, 12000, 3.5]])
    const wide = Uint8Array.from([0xff, 0xfe, ...[...'x,y,z\n1,2,3\n'].flatMap((c) => [c.charCodeAt(0), 0])])
    expect((await read(wide)).points).toEqual([[1, 2, 3]])
  })
})
