import { inOrder, type BuildUp, type Mass, type Part, type Project, type Scheme, type Use } from '@geotome/core/project'
import { useMemo } from 'react'
import { selectTried, selectTriedScheme, shownOf } from './project-slice'
import { shallowEqual } from 'react-redux'
import type { Dress } from '../stage/colours'
import type { Shades } from '../stage/drawing/told'
import { useAppSelector } from './store'
import type { ViewState } from './view-slice'

/** The open project, with the gesture under way on it as far as its figures are shown. Only within an open project. */
export function useProject() {
  return useAppSelector(shownOf, shallowEqual)
}

/** One or a few values of the open project: drawn anew only when one of them changes. */
export function useOf<T>(values: (at: { project: Project; scheme: Scheme }) => T): T {
  return useAppSelector((s) => values(shownOf(s)), shallowEqual)
}

/** The same at this very moment: for the few things that go along under the pointer. */
export function useProjectNow() {
  const project = useAppSelector(selectTried)
  const scheme = useAppSelector(selectTriedScheme)
  if (!project || !scheme) throw new Error('No project is open.')
  return { project, scheme }
}

/** Some of what the window shows, by name; only a change of these draws anew. */
export function useViewState<K extends keyof ViewState>(...names: K[]): Pick<ViewState, K> {
  return useAppSelector((s) => Object.fromEntries(names.map((n) => [n, s.view[n]])) as Pick<ViewState, K>, shallowEqual)
}

export const useStudy = () => useAppSelector((s) => s.view.study)
/** How numbers are shown: stays the same object while they are shown alike. */
export const useShownAs = () => useOf(({ project: { unit, precision } }) => ({ unit, precision }))
export const useUnit = () => useOf(({ project }) => project.unit)

export function usePickedMasses(): Mass[] {
  const { scheme } = useProject()
  const picked = useAppSelector((s) => s.view.picked)
  return picked.kind === 'mass' ? picked.ids.flatMap((id) => scheme.masses[id] ?? []) : []
}

export function usePickedPart(): Part | null {
  const { scheme } = useProject()
  const picked = useAppSelector((s) => s.view.picked)
  return picked.kind === 'part' ? (scheme.parts[picked.ids[0] ?? ''] ?? null) : null
}

/** What the things of the scheme are made of; null where that is not wanted. */
export function useDress(wanted: boolean): Dress | null {
  const { materials, kinds, masses } = useOf(({ project, scheme }) => ({
    materials: project.materials,
    kinds: project.kinds,
    masses: scheme.masses,
  }))
  return useMemo(() => (wanted ? { materials, kinds, masses } : null), [wanted, materials, kinds, masses])
}

/** The pictures of the project, as they are drawn. */
export function useShades(): Shades {
  const pictures = useOf(({ project }) => project.pictures)
  return useMemo(
    () => Object.fromEntries(Object.values(pictures).map(({ id, asset, opacity }) => [id, { asset, opacity }])),
    [pictures],
  )
}

export function useUses(): Use[] {
  const uses = useOf(({ project }) => project.uses)
  return useMemo(() => inOrder(uses), [uses])
}
export const useBuildUps = (kind: BuildUp['for']): BuildUp[] =>
  inOrder(useProject().project.buildUps).filter((b) => b.for === kind)
