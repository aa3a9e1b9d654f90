import { createRoot } from 'react-dom/client'
import { holdNewsWhilePressing } from './shared/live/underTheFinger'
import { App } from './shell/App'
import { ConsoleProviders } from './shell/ConsoleProviders'
import './shell/fonts'
import '@mantine/core/styles.css'
import './shell/look.css'

const root = document.getElementById('root')
if (!root) throw new Error('index.html needs an element with the id "root".')
holdNewsWhilePressing()
createRoot(root).render(
  <ConsoleProviders>
    <App />
  </ConsoleProviders>,
)
