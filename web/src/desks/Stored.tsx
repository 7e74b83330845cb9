import { format } from 'date-fns'
import { Link } from 'react-router'
import { bringBack, letGo, tryAgain } from '../app/session'
import { useAppSelector } from '../app/store'
import { inUnits } from '../common/tell'

/** Whether all is stored, is on its way, or waits here since the server is away. */
export function Saved() {
  const saved = useAppSelector((s) => s.project.saved)
  const moment = useAppSelector((s) => s.project.moment)
  const pending = useAppSelector((s) => s.project.pending)
  const time = saved.at ? format(saved.at, 'HH:mm') : ''
  if (moment !== null) return null
  return (
    <span
      className={`mx-1.5 whitespace-nowrap ${saved.state === 'away' ? 'font-semibold text-warn' : 'text-ink2'}`}
      role="status"
      data-saved={saved.state}
    >
      {saved.state === 'away'
        ? `server away${pending.length ? `, ${pending.length} kept here` : ''}`
        : saved.state === 'saving'
          ? `saving${pending.length > 1 ? ` ${pending.length}` : ''}`
          : `saved ${time}`}
    </span>
  )
}

/** What the server did not take: what it was, why, and whether to try it again or let it go. */
export function NotStored() {
  const refused = useAppSelector((s) => s.project.refused)
  if (refused.length === 0) return null
  return (
    <details className="dropdown dropdown-end">
      <summary className="mx-1.5 cursor-pointer list-none whitespace-nowrap font-semibold text-warn underline">
        {refused.length} not stored
      </summary>
      <ul className="dropdown-content z-50 mt-2 max-h-96 w-96 overflow-y-auto rounded-md border border-line bg-panel p-2 shadow-lg">
        {refused.map((r) => (
          <li key={r.id} className="border-b border-line px-1 py-2 last:border-b-0">
            <b>{r.label}</b>
            {r.value && <p className="break-words">{r.value}</p>}
            <p className="text-ink2">{inUnits(r.why)}</p>
            <p className="mt-1 flex gap-4">
              <button className="cursor-pointer underline" onClick={() => tryAgain(r.id)}>
                Try again
              </button>
              <button className="cursor-pointer underline" onClick={() => letGo(r.id)}>
                Let it go
              </button>
            </p>
          </li>
        ))}
      </ul>
    </details>
  )
}

/** Said at once where somebody takes away the project that is open. */
export function GoneBar() {
  const gone = useAppSelector((s) => s.project.gone)
  if (!gone) return null
  return (
    <p
      role="alert"
      className="flex h-8 shrink-0 items-center justify-center gap-4 border-b border-line bg-field text-[12.5px]"
    >
      <b>Somebody has removed this project.</b>
      <span className="text-ink2">What you change now is not stored.</span>
      <button className="cursor-pointer underline" onClick={() => void bringBack()}>
        Bring it back
      </button>
      <Link className="underline" to="/">
        Go to the list of projects
      </Link>
    </p>
  )
}
