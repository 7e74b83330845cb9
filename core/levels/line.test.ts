import { beforeAll, describe, expect, it } from 'vitest'
import type { Project } from '../project'
import { openKernel } from '../solid'
import { apply, minter, projectWith, schemeOf, withMass } from '../testing/make'
import { addByLine, levelHeights, readLevelLine } from './index'

beforeAll(() => openKernel())

const mint = minter('line')
const typed = (p: Project, text: string, on: string | null = null): Project =>
  apply(p, addByLine(p, schemeOf(p), mint, readLevelLine(text, p, schemeOf(p)), on).edit)
const heights = (p: Project) => levelHeights(p, schemeOf(p)).map((l) => `${l.name} ${l.height.toFixed(2)}`)

describe('a line that adds levels', () => {
  it('three typed one after the other stand on one another, whatever is looked at', () => {
    const p = ['2.85 First', '3.15 Second', '3.4 Attic'].reduce((now, line) => typed(now, line), projectWith([0]))
    expect(heights(p)).toEqual(['Level 0 0.00', 'First 2.85', 'Second 6.00', 'Attic 9.40'])
  })
  it('below zero they hang under the lowest; from the datum they stay where they are; marks are marks', () => {
    // Whatever is picked.
    let p = typed(typed(projectWith([0, 3]), '-3.3 Cellar', 'L1'), '-2.4')
    expect(heights(p).slice(0, 2)).toEqual(['Basement 1 -5.70', 'Cellar -3.30'])
    p = typed(typed(p, '@7.2 Loft'), 'mark @36 permitted')
    expect(heights(p).slice(-2)).toEqual(['Loft 7.20', 'permitted 36.00'])
    expect(levelHeights(p, schemeOf(p)).at(-1)?.kind).toBe('mark')
    // The mark is the topmost, but nothing stands on it.
    expect(heights(typed(p, '3'))).toContain('Storey 6 10.20')
  })
  it('several go on from the one that they stand on, or from the name that is typed', () => {
    expect(heights(typed(projectWith([0]), '3 x 3.15'))).toEqual([
      'Level 0 0.00',
      'Level 1 3.15',
      'Level 2 6.30',
      'Level 3 9.45',
    ])
    expect(heights(typed(projectWith([0]), '2 x 3 First'))).toEqual(['Level 0 0.00', 'First 3.00', 'Second 6.00'])
    expect(heights(typed(projectWith([0]), '2×3 Deck')).slice(1)).toEqual(['Deck 1 3.00', 'Deck 2 6.00'])
  })
  it('above a level in between it carries what stands there', () => {
    const p = withMass(projectWith([0, 3, 6]), { name: 'Bar', box: [0, 0, 20, 10], height: 6 })
    expect(heights(typed(p, '2.5 Gallery', 'L1'))).toEqual([
      'Level 0 0.00',
      'Level 1 3.00',
      'Gallery 5.50',
      'Level 2 8.50',
    ])
    expect(heights(typed(p, '2 x 2.5 Gallery', 'L1')).at(-1)).toBe('Level 2 11.00')
  })
  it('sums, units and names of levels may stand in the height', () => {
    expect(heights(typed(projectWith([0, 3]), '0.45 + 3.65 Eaves')).at(-1)).toBe('Eaves 7.10')
    expect(heights(typed(projectWith([0, 3]), '9\' 6" Loft')).at(-1)).toBe('Loft 5.90')
    expect(heights(typed(projectWith([0, 3]), '2850 mm')).at(-1)).toBe('Level 2 5.85')
  })
  it.each([
    ['', /No height is typed/],
    ['First', /Type how much above/],
    ['0 Nothing', /two levels at one height/],
    ['3 x @3', /Several levels cannot be at one height/],
    ['900 x 3', /900 storeys cannot be added/],
    ['3 x mark 3', /Type how much/],
  ])('"%s" is refused with what to type', (text, sentence) => {
    expect(() => typed(projectWith([0]), text)).toThrow(sentence)
  })
})
