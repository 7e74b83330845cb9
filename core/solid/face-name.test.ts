import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  faceLabel,
  faceName,
  goesRound,
  inHole,
  moveOf,
  onStrip,
  parseFaceName,
  parseWallPlace,
  pieceOfFace,
  printFaceName,
  printWallPlace,
  rawName,
  stretchEnds,
  stretchName,
  stripName,
  stripOf,
} from './face-name'

const id = fc.uuid()
const edge = fc.oneof(
  fc.integer({ min: 1, max: 40 }).map((n) => `e${n}`),
  fc.constantFrom('south', 'top', 'base', 'round'),
)
const own = fc.oneof(
  edge,
  fc.tuple(edge, edge).map(([h, e]) => inHole(h, e)),
)
const face = fc.tuple(id, own).map(([m, o]) => faceName(m, o))

describe('names of faces', () => {
  it('are read back as what they were made of, whatever borders them', () => {
    fc.assert(
      fc.property(id, own, fc.uniqueArray(face, { maxLength: 4 }), (move, of, borders) => {
        const name = borders.length ? pieceOfFace(faceName(move, of), borders) : faceName(move, of)
        expect(parseFaceName(name)).toEqual({ move, own: of, borders: [...borders].sort() })
        expect(printFaceName(parseFaceName(name))).toBe(name)
        expect(rawName(name)).toBe(faceName(move, of))
        expect(moveOf(name)).toBe(move)
      }),
    )
  })
  it('are said in words', () => {
    expect(faceLabel('m/south')).toBe('south')
    expect(faceLabel('m/e3')).toBe('side 3')
    expect(faceLabel('m/h1/e2~m/e1+m/top')).toBe('h1 side 2, a piece')
  })
  it('a wall stands on a strip of its face, or on a stretch of it; each is changed without the other', () => {
    fc.assert(
      fc.property(face, face, fc.option(id), fc.option(id), fc.integer({ min: 1, max: 5 }), (l, r, a, b, nth) => {
        const [strip, stretch] = [stripName(l, r), stretchName(a ?? '', b ?? '', nth)]
        const place = printWallPlace({ strip, stretch })
        expect(parseWallPlace(place)).toEqual({ strip, stretch })
        expect(stripOf(place)).toBe(strip)
        expect(stretchEnds(stretch)).toEqual([a ?? '', b ?? ''])
        expect(onStrip('', place)).toBe(`#${stretch}`)
        expect(onStrip(strip, strip)).toBe(strip)
        expect(goesRound(stripName(l, l), l)).toBe(true)
      }),
    )
  })
})
