import { Dialog } from '../common/Dialog'

const KEYS: [string, string][] = [
  ['1 to 6', 'the desks'], ['F', 'show all'], ['Ctrl Z, Ctrl Y', 'undo, redo'], ['Escape', 'one step back'], ['Enter', 'accept'],
  ['R, P', 'rectangle, polygon'], ['G, J', 'pitch, join'], ['Delete', 'delete what is picked'], ['B, I', 'make building, bring in line'],
  ['L, N', 'ledger, findings'], ['Shift while drawing', 'holds to an axis'], ['Alt while dragging a level', 'holds those above'],
  ['drag', 'turns the view'], ['Shift drag, right drag', 'moves the view'], ['wheel', 'zooms'], ['Tab to a view, then arrows', 'turn it; with Shift, and in plan, move it'], ['plus, minus', 'zoom that view'], ['up, down in the spine', 'next level'],
]

export const Shortcuts = ({ onClose }: { onClose: () => void }) => (
  <Dialog title="Shortcuts" onClose={onClose}>
    <dl className="grid grid-cols-[auto_1fr] gap-x-6 gap-y-1.5">{KEYS.map(([k, say]) => <div key={k} className="contents"><dt className="font-semibold">{k}</dt><dd className="text-ink2">{say}</dd></div>)}</dl>
  </Dialog>
)
