import { useParams } from 'react-router'
import { api } from '../app/api'
import { useProject } from '../app/hooks'
import { useAppSelector } from '../app/store'
import { Dialog } from '../common/Dialog'

const FORMATS = [
  {
    id: 'ifc',
    label: 'Building model, IFC4',
    say: 'Storeys, spaces by use, walls, slabs and roofs with their build-ups, the site and where it lies. A mass without parts goes along as a body.',
  },
  { id: 'ifc-forms', label: 'Building model with its forms, IFC4', say: 'The same, and every form beside its parts.' },
  { id: 'glb', label: 'Building, GLB', say: 'Parts and forms with their materials, for viewers and renderers.' },
  { id: 'obj', label: 'Forms, OBJ', say: 'Every mass with its faces by name, metres, z up, in full precision.' },
  {
    id: 'obj-materials',
    label: 'Forms with materials, OBJ in a zip',
    say: 'The same with a file of the materials beside it.',
  },
  {
    id: 'stl',
    label: 'Forms, STL',
    say: 'Closed triangles, for printing a model. Far from zero they are moved near, and the file says by how much.',
  },
  { id: 'csv', label: 'Ledger, CSV', say: 'Level by use, with totals, for a spreadsheet.' },
  { id: 'geotome', label: 'Project file', say: 'Everything, to open again here or on another machine.' },
  { id: 'json', label: 'Project file, plain text', say: 'The same as JSON, for the command line.' },
]

export function ExportDialog({ onClose }: { onClose: () => void }) {
  const { id = '' } = useParams()
  const { scheme } = useProject()
  const moment = useAppSelector((s) => s.project.moment)
  return (
    <Dialog title="Export" onClose={onClose} wide>
      <ul className="grid max-h-[62vh] grid-cols-2 gap-2 overflow-auto">
        {FORMATS.map((f) => (
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
