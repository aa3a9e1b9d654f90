export { RebuildPage } from './RebuildPage'
