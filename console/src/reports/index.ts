export { documentAddress } from './documentAddress'
