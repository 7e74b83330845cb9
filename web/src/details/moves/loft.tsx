import { foldings, type Folding } from '@geotome/core/moves'
import { heightsOf, numbersOf, Refusal, showNumber, standingNumbers } from '@geotome/core/project'
import { usePickedMasses, useProject } from '../../app/hooks'
import type { MoveOnPage, MoveProps } from './kind'

export const loft: MoveOnPage<'loft'> = { More: Foldings }

const WORDS = { warped: 'warped', right: 'folded right', left: 'folded left' }

/** What either way of folding does to floors and volume, before one is chosen; nothing where all faces are flat. */
function Foldings({ move, recipe }: MoveProps<'loft'>) {
  const { project, scheme } = useProject()
  const [mass] = usePickedMasses()
  const numbers = numbersOf(project, scheme)
  if (!mass) return null
  let all: Folding[]
  try {
    all = foldings(recipe, move, standingNumbers(mass, numbers, heightsOf(scheme, numbers), scheme.masses), mass.name)
  } catch (e) {
    if (e instanceof Refusal) return null
    throw e
  }
  const [first] = all
  if (!first) return null
  return (
    <table
      aria-label="ways of folding"
      className="mt-1 mb-1.5 w-full text-right text-[12px] [&_td]:py-0.5 [&_td]:pl-1.5 [&_th]:pl-1.5"
    >
      <thead>
        <tr className="text-[11px] text-ink2">
          <th className="text-left font-normal">if</th>
          {all.map((f) => (
            <th key={f.fold} className={`font-normal ${f.fold === move.faces ? 'text-ink' : ''}`}>
              {WORDS[f.fold]}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {first.plates.slice(0, 12).map(({ level }, i) => (
          <tr key={level}>
            <td className="text-left text-ink2">{scheme.levels[level]?.name}</td>
            {all.map((f) => (
              <td key={f.fold}>{showNumber(f.plates[i]?.area ?? 0, 'area', project)}</td>
            ))}
          </tr>
        ))}
        <tr>
          <td className="text-left text-ink2">volume, m³</td>
          {all.map((f) => (
            <td key={f.fold}>{showNumber(f.volume, 'area', project)}</td>
          ))}
        </tr>
      </tbody>
    </table>
  )
}
