import { beforeAll, describe, expect, it } from 'vitest'
import { openKernel } from '../solid'
import { addBodies } from '../form'
import { apply, minter, projectWith, schemeOf, studied } from '../testing/make'
import { objBox } from '../testing/obj-box'
import { readBodies } from './index'

beforeAll(() => openKernel())

/** Boxes [x, y, z, width, depth, height] as one OBJ object. */
const objOf = (boxes: number[][], turn = 0): string =>
  ['# metres, z up', 'o all', ...boxes.flatMap((box, i) => objBox(box, 8 * i, turn))].join('\n')

const read = async (text: string) => {
  const { bodies } = await readBodies('boxes.obj', new TextEncoder().encode(text), false)
  const project = projectWith([0])
  const use = Object.keys(project.uses)[0] ?? ''
  const to = { use, level: 'L0', levelHeight: 0, context: false }
  return studied(apply(project, addBodies(schemeOf(project), minter('read'), bodies, to)))
}

describe('boxes in one object of a file', () => {
  it.each([0, 17.3])('that touch keep all of their floor, turned by %i degrees', async (turn) => {
    const two = await read(objOf([[0, 0, 0, 10, 6, 3], [10, 0, 0, 10, 6, 3]], turn)) // prettier-ignore
    expect([two.totals.area, two.totals.volume]).toEqual([expect.closeTo(120, 3), expect.closeTo(360, 3)])
    expect(two.findings.filter((f) => f.kind === 'open or self-crossing body')).toEqual([])
  })
  it('61 in a row have the floor of 61', async () => {
    const row = Array.from({ length: 61 }, (_, i) => [i * 10, 0, 0, 10, 6, 3])
    expect((await read(objOf(row))).totals.area).toBeCloseTo(3660, 2)
  })
  it('that meet along one upright edge have the floor of both', async () => {
    expect((await read(objOf([[0, 0, 0, 10, 6, 3], [10, 6, 0, 10, 6, 3]]))).totals.area).toBeCloseTo(120, 3) // prettier-ignore
  })
  it('that overlap count their common floor once', async () => {
    const both = await read(objOf([[0, 0, 0, 10, 6, 3], [5, 0, 0, 10, 6, 3]])) // prettier-ignore
    expect([both.totals.area, both.totals.volume]).toEqual([expect.closeTo(90, 3), expect.closeTo(270, 3)])
  })
  it('that stand on one another, or lie apart, keep theirs', async () => {
    expect((await read(objOf([[0, 0, 0, 10, 6, 3], [0, 0, 3, 10, 6, 3]]))).totals.volume).toBeCloseTo(360, 3) // prettier-ignore
    expect((await read(objOf([[0, 0, 0, 10, 6, 3], [30, 0, 0, 10, 6, 3]]))).totals.area).toBeCloseTo(120, 3) // prettier-ignore
  })
  it('whose corners lie 0.02 mm apart are closed', async () => {
    const loose = objOf([[0, 0, 0, 10, 6, 3]]).replace('f 5 6 7 8', 'v 0.00002 0 3\nf 9 6 7 8')
    const { findings, totals } = await read(loose)
    expect(totals.area).toBeCloseTo(60, 2)
    expect(findings.filter((f) => f.kind === 'open or self-crossing body')).toEqual([])
  })
  it.each([0, 17.3])('whose faces meet in the middle of an edge are closed (turned by %f degrees)', async (turn) => {
    // A box whose south side is drawn in two faces, one of them 0.02 mm off, and whose top is cut the other way.
    const [c, s] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)]
    // prettier-ignore
    const points = [[0, 0, 0], [12, 0, 0], [12, 10, 0], [0, 10, 0], [0, 0, 6], [12, 0, 6], [12, 10, 6], [0, 10, 6], [5, 0.00002, 0], [5, 0, 6], [0, 4, 6], [12, 4, 6]]
    // prettier-ignore
    const faces = [[4, 3, 2, 1], [1, 9, 10, 5], [9, 2, 6, 10], [2, 3, 7, 6], [3, 4, 8, 7], [4, 1, 5, 8], [5, 6, 12, 11], [11, 12, 7, 8]]
    const text = [
      '# metres, z up',
      'o box',
      ...points.map(([x = 0, y = 0, z]) => `v ${c * x - s * y} ${s * x + c * y} ${z}`),
      ...faces.map((f) => `f ${f.join(' ')}`),
    ]
    const box = await read(text.join('\n'))
    expect([box.totals.area, box.totals.volume]).toEqual([expect.closeTo(120, 3), expect.closeTo(720, 2)])
    expect(box.findings.filter((f) => f.kind === 'open or self-crossing body')).toEqual([])
  })
  it('in metres at map coordinates are in metres', async () => {
    const text = objOf([[350000, 5600000, 0, 10, 6, 3]]).replace('# metres, z up\n', '')
    const { bodies, asks } = await readBodies('map.obj', new TextEncoder().encode(text), false)
    expect(asks.find((a) => a.what === 'unit')?.taken).toBe('m')
    expect(bodies[0]?.place).toEqual([350000, 5600000])
  })
})
