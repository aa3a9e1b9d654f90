export { RunPage } from './RunPage'
