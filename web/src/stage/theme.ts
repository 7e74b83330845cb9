import { useSyncExternalStore } from 'react'

export interface Palette {
  paper: string
  ink: string
  ink2: string
  ink3: string
  cut: string
  cutsoft: string
  warn: string
  up: string
  lit: string
  shade: string
  ghost: string
  shadow: string
  frame: string
}

export type Theme = 'paper' | 'ink'
const listeners = new Set<() => void>()

export const currentTheme = (): Theme => (document.documentElement.dataset.theme === 'ink' ? 'ink' : 'paper')

export function setTheme(theme: Theme): void {
  document.documentElement.dataset.theme = theme
  localStorage.setItem('geotome-theme', theme)
  for (const listen of listeners) listen()
}

export const useTheme = (): Theme =>
  useSyncExternalStore((listen) => {
    listeners.add(listen)
    return () => listeners.delete(listen)
  }, currentTheme)

/** The stage's colours, from the same tokens as the page's. */
export function paletteOf(_theme: Theme): Palette {
  const style = getComputedStyle(document.documentElement)
  const of = (name: string) => style.getPropertyValue(name).trim()
  return {
    paper: of('--paper'),
    ink: of('--ink'),
    ink2: of('--ink2'),
    ink3: of('--ink3'),
    cut: of('--cut'),
    cutsoft: of('--cutsoft'),
    warn: of('--warn'),
    up: of('--face-up'),
    lit: of('--face-lit'),
    shade: of('--face-shade'),
    ghost: of('--ghost'),
    shadow: of('--shadow'),
    frame: of('--frame'),
  }
}
