import { History, Keyboard, Moon, Redo2, Search, Sun, Undo2 } from 'lucide-react'
import { Link, NavLink, useParams } from 'react-router'
import { useOf } from '../app/hooks'
import { stepBack } from '../app/session'
import { useAppDispatch, useAppSelector } from '../app/store'
import { dialogOpened } from '../app/view-slice'
import { setTheme, useTheme } from '../stage/theme'
import { Wordmark } from '../common/Wordmark'
import { DESKS } from './list'
import { SchemeMenu } from './SchemeMenu'
import { GoneBar, NotStored, Saved } from './Stored'

export function Header({ id }: { id: string }) {
  const dispatch = useAppDispatch()
  const name = useOf(({ project }) => project.name)
  const history = useAppSelector((s) => s.project.history)
  const moment = useAppSelector((s) => s.project.moment)
  const theme = useTheme()
  const icon = 'cursor-pointer p-1.5 disabled:opacity-35'
  return (
    <>
      {moment !== null && <MomentBar moment={moment} />}
      <GoneBar />
      <header className="flex h-11 shrink-0 items-center border-b border-line bg-panel px-3.5">
        <div className="flex min-w-0 flex-1 items-center gap-4">
          <Link to="/" aria-label="All projects">
            <Wordmark />
          </Link>
          <div className="flex min-w-0 items-center gap-1.5 text-[13px] whitespace-nowrap">
            <Link to="/" className="truncate text-ink2 hover:text-ink">
              {name}
            </Link>
            <span className="text-ink2">/</span>
            <SchemeMenu />
          </div>
        </div>
        <nav className="flex h-full" aria-label="Desks">
          {DESKS.map((desk) => (
            <NavLink
              key={desk.name}
              to={{ pathname: `/p/${id}/${desk.name}`, search: moment === null ? '' : `?at=${moment}` }}
              className={({ isActive }) =>
                `flex h-full items-center border-b-2 px-3.5 font-medium ${isActive ? 'border-ink font-semibold text-ink' : 'border-transparent text-ink2 hover:text-ink'}`
              }
            >
              {desk.label}
            </NavLink>
          ))}
        </nav>
        <div className="flex flex-1 items-center justify-end gap-0.5 text-[12.5px]">
          <button
            className={icon}
            disabled={!history.undo}
            title={history.undo ? `Undo: ${history.undo} (Ctrl Z)` : 'Nothing to undo'}
            aria-label="Undo"
            onClick={() => void stepBack('undo')}
          >
            <Undo2 size={16} />
          </button>
          <button
            className={icon}
            disabled={!history.redo}
            title={history.redo ? `Redo: ${history.redo} (Ctrl Y)` : 'Nothing to redo'}
            aria-label="Redo"
            onClick={() => void stepBack('redo')}
          >
            <Redo2 size={16} />
          </button>
          <NotStored />
          <Saved />
          <button
            className={icon}
            aria-label="Restore points"
            title="Restore points: named moments of this project"
            onClick={() => dispatch(dialogOpened('restore-points'))}
          >
            <History size={16} />
          </button>
          <button
            className={icon}
            aria-label="Find"
            title="Find an action, a level, a mass (Ctrl K)"
            onClick={() => dispatch(dialogOpened('find'))}
          >
            <Search size={16} />
          </button>
          <button
            className={icon}
            aria-label={theme === 'paper' ? 'Dark theme' : 'Light theme'}
            title={theme === 'paper' ? 'Dark theme' : 'Light theme'}
            onClick={() => setTheme(theme === 'paper' ? 'ink' : 'paper')}
          >
            {theme === 'paper' ? <Moon size={15} /> : <Sun size={15} />}
          </button>
          <button
            className={icon}
            aria-label="Shortcuts"
            title="Shortcuts (?)"
            onClick={() => dispatch(dialogOpened('shortcuts'))}
          >
            <Keyboard size={16} />
          </button>
        </div>
      </header>
    </>
  )
}

function MomentBar({ moment }: { moment: number }) {
  const { id = '', desk = 'slice' } = useParams()
  return (
    <p
      role="status"
      className="flex h-8 shrink-0 items-center justify-center gap-4 border-b border-line bg-field text-[12.5px]"
    >
      <b>A moment of the past, after {moment} edits.</b>
      <span className="text-ink2">It can be looked at and exported, not changed.</span>
      <Link className="underline" to={`/p/${id}/${desk}`}>
        Go to the present
      </Link>
    </p>
  )
}
