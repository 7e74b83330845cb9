import { lazy, StrictMode, Suspense } from 'react'
import { createRoot } from 'react-dom/client'
import { Provider } from 'react-redux'
import { BrowserRouter, Navigate, Route, Routes } from 'react-router'
import { Toaster } from 'sonner'
import { askEarly } from './app/early'
import { followPage } from './app/session'
import { store } from './app/store'
import { ConfirmHost } from './common/confirm'
import Projects from './projects/Projects'
import './styles.css'

// The stage and its drawing library come when a project is opened.
const Editor = lazy(() => import('./desks/Editor'))
const Summary = lazy(() => import('./summary/Summary'))

askEarly(location.pathname)
followPage()
const root = document.getElementById('root')
if (root)
  createRoot(root).render(
    <StrictMode>
      <Provider store={store}>
        <BrowserRouter>
          <Suspense fallback={<main className="grid h-full place-items-center text-ink2">Opening ...</main>}>
            <Routes>
              <Route path="/" element={<Projects />} />
              <Route path="/p/:id/summary" element={<Summary />} />
              <Route path="/p/:id/:desk?" element={<Editor />} />
              <Route path="*" element={<Navigate to="/" replace />} />
            </Routes>
          </Suspense>
        </BrowserRouter>
        <ConfirmHost />
        <Toaster
          position="bottom-center"
          offset={120}
          toastOptions={{
            style: {
              fontFamily: 'inherit',
              fontSize: 13,
              background: 'var(--panel)',
              color: 'var(--ink)',
              border: '1px solid var(--line)',
            },
          }}
        />
      </Provider>
    </StrictMode>,
  )
