import { useMemo } from 'react'
import { useNavigate, useParams } from 'react-router'
import { useProject } from '../app/hooks'
import { selectShown, selectScheme } from '../app/project-slice'
import { store, useAppDispatch, useAppSelector } from '../app/store'
import { atDesk } from '../desks/after-desk'
import { DESK_NAMES, type DeskName, type Now } from './kind'

/** Gives what verbs see, as it is when it is asked for. */
export function useAsk(): () => Now {
  const dispatch = useAppDispatch()
  const navigate = useNavigate()
  const { id = '', desk = '' } = useParams()
  return useMemo(() => {
    const to = (d: string) => void navigate(`/p/${id}/${d}`)
    return () => {
      const state = store.getState()
      const [project, scheme] = [selectShown(state), selectScheme(state)]
      if (!project || !scheme) throw new Error('No project is open.')
      const { picked } = state.view
      return {
        project,
        scheme,
        view: state.view,
        masses: picked.kind === 'mass' ? picked.ids.flatMap((m) => scheme.masses[m] ?? []) : [],
        desk: deskNamed(desk),
        dispatch,
        go: (d, then) => (then ? atDesk(d, to, then) : to(d)),
      }
    }
  }, [dispatch, navigate, id, desk])
}

const deskNamed = (desk: string): DeskName => DESK_NAMES.find((d) => d === desk) ?? 'slice'

/** What verbs see, on a page that is drawn again when it changes. */
export function useNow(): Now {
  const ask = useAsk()
  useProject()
  useAppSelector((s) => s.view)
  return ask()
}
