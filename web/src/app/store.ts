import { configureStore } from '@reduxjs/toolkit'
import { useDispatch, useSelector } from 'react-redux'
import { projectReducer } from './project-slice'
import { viewReducer } from './view-slice'

// Both slices hold plain data only; the checks of that on every change would cost more than the changes.
export const createAppStore = () =>
  configureStore({
    reducer: { project: projectReducer, view: viewReducer },
    middleware: (defaults) => defaults({ immutableCheck: false, serializableCheck: false }),
  })
/** The page's one store. */
export const store = createAppStore()

export type RootState = ReturnType<typeof store.getState>
export const useAppDispatch = useDispatch.withTypes<typeof store.dispatch>()
export const useAppSelector = useSelector.withTypes<RootState>()
export type AppDispatch = typeof store.dispatch
export type AppStore = typeof store
