export { IntakePage } from './IntakePage'
export { ReportFaultPage } from './ReportFaultPage'
