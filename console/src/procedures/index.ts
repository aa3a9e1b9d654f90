export { useProcedures } from './procedureQueries'
