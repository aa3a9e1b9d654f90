export { Chassis } from './Chassis'
export { HandSnapshotPage } from './HandSnapshotPage'
