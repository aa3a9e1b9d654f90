export { ReturnPage } from './ReturnPage'
