import { toast } from 'sonner'
import { sayInUnits } from '@geotome/core/project'
import { selectPresent } from '../app/project-slice'
import { store } from '../app/store'

/** A sentence of the core in the unit of the project that is open: the one way in which refusals reach the screen. */
export function inUnits(sentence: string): string {
  const present = selectPresent(store.getState())
  return present ? sayInUnits(sentence, present.project) : sentence
}

/** Says what could not be done. */
export const tellFault = (sentence: string, more?: Parameters<typeof toast.error>[1]): void =>
  void toast.error(inUnits(sentence), more)
