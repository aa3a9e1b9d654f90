import { createRoot } from 'react-dom/client'
import { App } from './shell/App'
import { ConsoleProviders } from './shell/ConsoleProviders'
import './shell/fonts'
import '@mantine/core/styles.css'
import './shell/look.css'

const root = document.getElementById('root')
if (!root) throw new Error('index.html needs an element with the id "root".')
createRoot(root).render(
  <ConsoleProviders>
    <App />
  </ConsoleProviders>,
)
