import { toast } from 'sonner'
import { api } from './api'
import { author } from './author'
import { createSession } from './create-session'
import { openAsked } from './early'
import * as outbox from './outbox'
import { store } from './store'
import { wasTriedWell } from './tried-well'
import { tellFault } from '../common/tell'

/** The page's one session. */
export const session = createSession({
  api: { ...api, open: openAsked },
  store,
  outbox,
  author,
  isChecked: wasTriedWell,
  say: (text, how, act) => {
    const more = act ? { action: { label: act.label, onClick: act.run } } : {}
    if (how === 'fault') tellFault(text, more)
    else toast(text, more)
  },
  stream: (url) => new EventSource(url),
})

export const {
  openProject,
  closeProject,
  sendLeftovers,
  makeEdit,
  tryEdit,
  whileTyping,
  stepBack,
  settled,
  tryAgain,
  letGo,
  bringBack,
} = session

/** A browser keeps six connections to a server, and a stream holds one: windows that nobody sees let theirs go, and catch up when they are seen. */
export function followPage(): void {
  document.addEventListener('visibilitychange', () => session.seen(!document.hidden))
  window.addEventListener('offline', () => session.online(false))
  window.addEventListener('online', () => session.online(true))
  window.addEventListener('beforeunload', (event) => {
    if (session.wouldLose()) event.preventDefault()
  })
}
