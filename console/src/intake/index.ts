export { ReportFaultPage } from './ReportFaultPage'
