import { Keyboard, Moon, Redo2, Sun, Undo2 } from 'lucide-react'
import { useEffect, useState } from 'react'
import { Link, NavLink } from 'react-router'
import { useProject } from '../app/hooks'
import { stepBack } from '../app/session'
import { useAppSelector } from '../app/store'
import { setTheme, useTheme } from '../stage/theme'
import { Wordmark } from '../common/Wordmark'
import { Shortcuts } from './Shortcuts'

const DESKS = ['Ground', 'Form', 'Slice', 'Fabric', 'Light', 'Sheets']

export function Header({ id }: { id: string }) {
  const { project, scheme } = useProject()
  const { history } = useAppSelector((s) => s.project)
  const theme = useTheme()
  const [help, setHelp] = useState(false)
  useEffect(() => {
    const open = (e: KeyboardEvent) => { if (e.key === '?' && !(e.target as HTMLElement).matches('input, textarea, select')) setHelp(true) }
    window.addEventListener('keydown', open)
    return () => window.removeEventListener('keydown', open)
  }, [])
  return (
    <header className="flex h-11 shrink-0 items-center border-b border-line bg-panel px-3.5">
      <div className="flex min-w-0 flex-1 items-center gap-4">
        <Link to="/" aria-label="All projects"><Wordmark /></Link>
        <p className="truncate text-[13px]"><Link to="/" className="text-ink2 hover:text-ink">{project.name}</Link><span className="text-ink2"> / </span><b className="font-semibold">{scheme.name}</b></p>
      </div>
      <nav className="flex h-full" aria-label="Desks">
        {DESKS.map((desk) => <NavLink key={desk} to={`/p/${id}/${desk.toLowerCase()}`} className={({ isActive }) => `flex h-full items-center border-b-2 px-3.5 font-medium ${isActive ? 'border-ink font-semibold text-ink' : 'border-transparent text-ink2 hover:text-ink'}`}>{desk}</NavLink>)}
      </nav>
      <div className="flex flex-1 items-center justify-end gap-1 text-[12.5px]">
        <button className="cursor-pointer p-1.5 disabled:opacity-35" disabled={!history.undo} title={history.undo ? `Undo: ${history.undo} (Ctrl Z)` : 'Nothing to undo'} aria-label="Undo" onClick={() => void stepBack('undo')}><Undo2 size={16} /></button>
        <button className="cursor-pointer p-1.5 disabled:opacity-35" disabled={!history.redo} title={history.redo ? `Redo: ${history.redo} (Ctrl Y)` : 'Nothing to redo'} aria-label="Redo" onClick={() => void stepBack('redo')}><Redo2 size={16} /></button>
        <Saved />
        <button className="cursor-pointer p-1.5" aria-label={theme === 'paper' ? 'Dark theme' : 'Light theme'} title={theme === 'paper' ? 'Dark theme' : 'Light theme'} onClick={() => setTheme(theme === 'paper' ? 'ink' : 'paper')}>{theme === 'paper' ? <Moon size={15} /> : <Sun size={15} />}</button>
        <button className="cursor-pointer p-1.5" aria-label="Shortcuts" title="Shortcuts (?)" onClick={() => setHelp(true)}><Keyboard size={16} /></button>
      </div>
      {help && <Shortcuts onClose={() => setHelp(false)} />}
    </header>
  )
}

function Saved() {
  const { saved } = useAppSelector((s) => s.project)
  const time = saved.at ? new Date(saved.at).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' }) : ''
  return <span className={`mx-2 ${saved.state === 'away' ? 'font-semibold text-warn' : 'text-ink2'}`} role="status" data-saved={saved.state}>{saved.state === 'away' ? 'server away, kept here' : saved.state === 'saving' ? 'saving' : `saved ${time}`}</span>
}
