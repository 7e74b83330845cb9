import { Dialog } from '../common/Dialog'

const KEYS: [string, string][] = [
  ['Ctrl K', 'find any action, level, mass'],
  ['1 to 6', 'the desks'],
  ['F', 'show all'],
  ['V', 'kept views, what is shown'],
  ['Ctrl Z, Ctrl Y', 'undo, redo'],
  ['Escape', 'one step back'],
  ['Enter', 'accept'],
  ['R, P, C', 'rectangle, polygon, circle'],
  ['H', 'hole in the picked mass'],
  ['A while drawing', 'next kind of side: straight, arc, tangent'],
  ['G, J', 'pitch, join'],
  ['Delete', 'delete what is picked'],
  ['B, I', 'make building, bring in line'],
  ['L, N, T', 'ledger, findings, table of levels'],
  ['S, B, P at Ground', 'draw the site, a neighbour; add a picture'],
  ['C, X, H, M at Ground', 'calibrate, trace, read levels, measure'],
  ['arrows on the bench', 'move the last point by a pixel; with Shift by a tenth'],
  ['double click in an elevation', 'a level at that height'],
  ['Shift while drawing', 'holds to an axis'],
  ['Alt while dragging a level', 'holds those above'],
  ['drag', 'turns the view'],
  ['Shift drag, right drag', 'moves the view'],
  ['wheel', 'zooms'],
  ['Tab to a view, then arrows', 'turn it; with Shift, and in plan, move it'],
  ['plus, minus', 'zoom that view'],
  ['up, down in the spine', 'next level'],
  ['?', 'this list'],
]

export const Shortcuts = ({ onClose }: { onClose: () => void }) => (
  <Dialog title="Shortcuts" onClose={onClose}>
    <dl className="grid grid-cols-[auto_1fr] gap-x-6 gap-y-1.5">
      {KEYS.map(([k, say]) => (
        <div key={k} className="contents">
          <dt className="font-semibold">{k}</dt>
          <dd className="text-ink2">{say}</dd>
        </div>
      ))}
    </dl>
    <p className="mt-4 text-[12px] text-ink2">
      <a className="underline" href="/notices.txt" target="_blank" rel="noreferrer">
        Notices
      </a>{' '}
      of the libraries and the font that Geotome ships with.
    </p>
  </Dialog>
)
