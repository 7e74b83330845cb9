import type { ReactNode } from 'react'
import { withMove, type Move } from '@geotome/core/moves'
import { LinkButton } from '../../common/LinkButton'
import type { Change, RecipeProps } from './kind'

/** A move in its box, with its switch and the way to take it off. */
export function MoveBox({
  move,
  title,
  change,
  off,
  children,
}: {
  move: Move
  title: string
  change: RecipeProps['change']
  off: Change
  children: ReactNode
}) {
  return (
    <div className="mt-1 mb-1.5 rounded-md border border-line p-2">
      <p className="mb-1 text-[11px] text-ink2">{title}</p>
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
