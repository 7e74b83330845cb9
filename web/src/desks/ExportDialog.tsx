import { useParams } from 'react-router'
import { api } from '../app/api'
import { useProject } from '../app/hooks'
import { useAppSelector } from '../app/store'
import { Dialog } from '../common/Dialog'
import { useExchange } from '../common/use-exchange'

export function ExportDialog({ onClose }: { onClose: () => void }) {
  const { id = '' } = useParams()
  const { scheme } = useProject()
  const list = useExchange()
  const moment = useAppSelector((s) => s.project.moment)
  return (
    <Dialog title="Export" onClose={onClose} wide>
      <ul className="grid max-h-[62vh] grid-cols-2 gap-2 overflow-auto">
        {list?.written.map((f) => (
          <li key={f.id}>
            <a
              className="block h-full rounded-md border border-line px-3 py-2 hover:border-ink3"
              href={api.exportUrl(id, f.id, scheme.id, moment)}
              download
              data-export={f.id}
            >
              <span className="font-semibold">{f.label}</span>
              <span className="block text-[12px] text-ink2">{f.say}</span>
            </a>
          </li>
        ))}
      </ul>
    </Dialog>
  )
}
