import { useCallback } from 'react'
import { useKeys } from '../common/keys'
import { store } from '../app/store'
import { benchOpened, picked, proposed, sheetOpened } from '../app/view-slice'
import { toolKeys } from '../tools/tool-keys'
import { keyName, verbOfKey } from './list'
import { useAsk } from './use-now'

/** The one keymap of a desk: the tool at work first, then Escape one step back, then the verb of the key. */
export function useKeymap(): void {
  const ask = useAsk()
  useKeys(
    useCallback(
      (e, typing) => {
        if (toolKeys(e, typing)) return true
        const key = keyName(e)
        if (e.altKey || (typing && key !== 'Ctrl K')) return false
        if (document.querySelector('dialog[open]')) return false
        if (key === 'Escape') return stepOut()
        const now = ask()
        const verb = verbOfKey(key, now.desk)
        // On the bench what belongs to the desk behind it is out of reach.
        if (!verb || (now.view.bench && verb.desks !== 'all') || verb.off?.(now)) return false
        verb.run(now)
        return true
      },
      [ask],
    ),
  )
}

/** Closes what was opened last, else lets go of what is picked. */
function stepOut(): boolean {
  const { bench, sheet, proposing, spots, picked: now } = store.getState().view
  if (bench) store.dispatch(benchOpened(null))
  else if (sheet) store.dispatch(sheetOpened(null))
  else if (proposing) store.dispatch(proposed(null))
  else if (spots.length) store.dispatch(picked(now))
  else store.dispatch(picked({ kind: 'nothing' }))
  return false
}
