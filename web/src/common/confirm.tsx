import { useSyncExternalStore } from 'react'
import { Dialog } from './Dialog'

interface Question {
  title: string
  say: string[]
  accept: string
}
let open: { question: Question; answer: (yes: boolean) => void } | null = null
const listeners = new Set<() => void>()
const changed = () => {
  for (const l of listeners) l()
}

/** Asks before something goes that hangs together with other things. */
export function confirmed(question: Question): Promise<boolean> {
  return new Promise((answer) => {
    open = {
      question,
      answer: (yes) => {
        open = null
        changed()
        answer(yes)
      },
    }
    changed()
  })
}

export function ConfirmHost() {
  const now = useSyncExternalStore(
    (l) => {
      listeners.add(l)
      return () => listeners.delete(l)
    },
    () => open,
  )
  if (!now) return null
  return (
    <Dialog
      title={now.question.title}
      onClose={() => now.answer(false)}
      onAccept={() => now.answer(true)}
      accept={now.question.accept}
      danger
    >
      <ul className="flex flex-col gap-1.5 text-ink2">
        {now.question.say.map((s) => (
          <li key={s}>{s}</li>
        ))}
      </ul>
    </Dialog>
  )
}
