import { StrictMode, lazy, Suspense } from 'react'
import { createRoot } from 'react-dom/client'
import { BrowserRouter, Routes, Route, Link } from 'react-router-dom'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { ThemeProvider, createTheme, CssBaseline, AppBar, Toolbar, Button } from '@mui/material'
import { SnackbarProvider } from 'notistack'
import i18n from 'i18next'
import { initReactI18next } from 'react-i18next'
import './index.css'
import App from './App.tsx'
import { Orders } from './pages/Orders'

const Charts = lazy(() => import('./pages/Charts'))
const Notes = lazy(() => import('./pages/Notes'))

i18n.use(initReactI18next).init({
  lng: 'en',
  resources: { en: { translation: { home: 'Home', orders: 'Orders', charts: 'Charts', notes: 'Notes' } } },
})
const client = new QueryClient()
createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <ThemeProvider theme={createTheme()}>
      <CssBaseline />
      <QueryClientProvider client={client}>
        <SnackbarProvider>
          <BrowserRouter>
            <AppBar position="static">
              <Toolbar>
                {['', 'orders', 'charts', 'notes'].map((p) => (
                  <Button key={p} color="inherit" component={Link} to={'/' + p}>{i18n.t(p || 'home')}</Button>
                ))}
              </Toolbar>
            </AppBar>
            <Suspense fallback={<p>…</p>}>
              <Routes>
                <Route path="/orders" element={<Orders />} />
                <Route path="/charts" element={<Charts />} />
                <Route path="/notes" element={<Notes />} />
                <Route path="*" element={<App />} />
              </Routes>
            </Suspense>
          </BrowserRouter>
        </SnackbarProvider>
      </QueryClientProvider>
    </ThemeProvider>
  </StrictMode>,
)
