import { applyEdit } from '@geotome/core/edits'
import { readBrief } from '@geotome/core/groundwork'
import { inOrder } from '@geotome/core/project'
import { briefOf } from '@geotome/core/study'
import { minter, projectWith, studied, withMass } from '../../core/testing/make'
import { ODD_NUMBERS, ODD_TEXTS } from './dice'
import { Nonsense, type Kind } from './kind'

const NAMES = ['homes', 'homes net', 'studios', 'market', 'ratio', 'height', 'area', 'flats, homes', 'coverage']
const COLUMNS = [
  NAMES,
  ['6,200', '40', '2.5', '1 200', "12' 6", '500 m2', '30 %'],
  ['', '5 %', '10', '0'],
  ['', 'about', 'at least', 'at most', 'max'],
  ['', '', '', '65', '70 m2'],
  ['', 'gross', 'net'],
]

/** Tables that are pasted as a brief: each is read, and every line of it can be told, or it is refused. */
export const briefs = (): Kind => {
  const project = withMass(projectWith([0, 3]), { box: [0, 0, 12, 9], height: 6 })
  return {
    name: 'briefs',
    share: 6,
    mayBeEnded: false,
    one: (dice) => {
      const apart = dice.one(['\t', '\t', ';', '|'])
      const odd = () => (dice.chance(0.5) ? String(dice.one(ODD_NUMBERS)) : dice.one(ODD_TEXTS))
      const rows = Array.from({ length: 1 + dice.int(4) }, () =>
        COLUMNS.slice(0, 2 + dice.int(5)).map((cells) => (dice.chance(0.04) ? odd() : dice.one(cells))),
      )
      const text = rows.map((r) => r.join(apart)).join(dice.one(['\n', '\r\n']))
      const read = applyEdit(project, readBrief(project, text, minter('line'))).project
      const lines = briefOf(studied(read))
      if (lines.length !== inOrder(read.brief).length) throw new Nonsense('a line of the brief is not told')
      for (const { target, now, by } of lines)
        if (![target, now ?? 0, by].every(Number.isFinite) || target <= 0)
          throw new Nonsense(`a line of the brief is ${now} of ${target}, off by ${by}`)
    },
  }
}
