import type { ReactNode } from 'react'
import { ChevronDown, ChevronUp } from 'lucide-react'
import { withMove, withMoved, type Move } from '@geotome/core/moves'
import { LinkButton } from '../../common/LinkButton'
import type { Change, RecipeProps } from './kind'

/** A move in its box, with its switch and the way to take it off. */
export function MoveBox({
  move,
  recipe,
  title,
  change,
  off,
  children,
}: {
  move: Move
  recipe: Move[]
  title: string
  change: RecipeProps['change']
  off: Change
  children: ReactNode
}) {
  return (
    <div className="mt-1 mb-1.5 rounded-md border border-line p-2">
      <p className="mb-1 flex items-center justify-between text-[11px] text-ink2">
        {title}
        <span className="flex">
          {([-1, 1] as const).map((by) => (
            <button
              key={by}
              className="btn btn-ghost btn-xs h-5 min-h-0 px-1 disabled:opacity-30"
              aria-label={`Put the ${title} ${by < 0 ? 'earlier' : 'later'}`}
              title={by < 0 ? 'Earlier in the recipe' : 'Later in the recipe'}
              disabled={withMoved(recipe, move, by) === null}
              onClick={() => change(title, (r) => withMoved(r, move, by) ?? r)}
            >
              {by < 0 ? <ChevronUp size={12} /> : <ChevronDown size={12} />}
            </button>
          ))}
        </span>
      </p>
      {children}
      <p className="mt-1.5 flex gap-4">
        <LinkButton onClick={() => change(title, (r) => withMove(r, move, { on: !move.on }))}>
          {move.on ? 'Switch off' : 'Switch on'}
        </LinkButton>
        <LinkButton onClick={() => change(title, off)}>Take the {title} off</LinkButton>
      </p>
    </div>
  )
}
