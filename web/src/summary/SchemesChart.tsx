import type { SchemeSummary } from '@geotome/core/study'
import { useUses } from '../app/hooks'
import { UseBars } from '../slice/UseBars'

/** The areas of all schemes by use; the cards above say the same in figures. */
export default function SchemesChart({ schemes }: { schemes: readonly SchemeSummary[] }) {
  const uses = useUses().filter((u) => schemes.some((s) => (s.uses[u.id] ?? 0) > 0.005))
  return (
    <figure aria-label="areas of the schemes by use" style={{ height: 46 * schemes.length + 40 }}>
      <UseBars rows={schemes.map((s) => ({ name: s.name, areas: s.uses }))} uses={uses} wide={120} />
    </figure>
  )
}
