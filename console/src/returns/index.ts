export { BringPage } from './BringPage'
export { ReturnPage } from './ReturnPage'
