import { lazy, Suspense } from 'react'
import { Link, Route, Routes, useLocation } from 'react-router'
import { AddMachinePage, DrivePage, HandSnapshotPage, MachinePage, MachinesPage } from '../appliances'
import { ReportFaultPage } from '../intake'
import { ChooseOwnPasswordPage, SetUpSecondFactorPage, SignInOver, SignInPage, useMe } from '../people'
import { BringPage, ReturnPage } from '../returns'
import { isSignedOut } from '../shared/api'
import { WaitingPage } from '../shared/Waiting'
import { RunPage } from '../swaps'
import { DeskPage, MyDayPage, TicketPage, TicketRoute } from '../tickets'
import { Frame } from './Frame'
import { RoomBoundary } from './RoomBoundary'
import { useTitle } from './useTitle'

// For dispatchers at a desk, and the chart, which weighs as much as all the rest: an engineer's phone does not load them.
const YouPage = lazy(() => import('../people/YouPage').then(room => ({ default: room.YouPage })))
const PeoplePage = lazy(() => import('../people/PeoplePage').then(room => ({ default: room.PeoplePage })))
const PersonPage = lazy(() => import('../people/PersonPage').then(room => ({ default: room.PersonPage })))
const SecurityLogPage = lazy(() => import('../people/SecurityLogPage').then(room => ({ default: room.SecurityLogPage })))
const IntakePage = lazy(() => import('../intake/IntakePage').then(room => ({ default: room.IntakePage })))
const CustomersPage = lazy(() => import('../appliances/customers/CustomersPage').then(room => ({ default: room.CustomersPage })))
const CustomerPage = lazy(() => import('../appliances/customers/CustomerPage').then(room => ({ default: room.CustomerPage })))
const SuppliesPage = lazy(() => import('../returns/stores/SuppliesPage').then(room => ({ default: room.SuppliesPage })))
const WarrantiesPage = lazy(() => import('../returns/stores/WarrantiesPage').then(room => ({ default: room.WarrantiesPage })))
const StoresPage = lazy(() => import('../returns/stores/StoresPage').then(room => ({ default: room.StoresPage })))
const SignPage = lazy(() => import('../reports/SignPage').then(room => ({ default: room.SignPage })))
const OutboxPage = lazy(() => import('../returns/outside/OutboxPage').then(room => ({ default: room.OutboxPage })))
const ListsPage = lazy(() => import('../appliances/ListsPage').then(room => ({ default: room.ListsPage })))
const LibraryPage = lazy(() => import('../procedures/LibraryPage').then(room => ({ default: room.LibraryPage })))
const ProcedurePage = lazy(() => import('../procedures/ProcedurePage').then(room => ({ default: room.ProcedurePage })))
const PaperPage = lazy(() => import('../swaps/paper/PaperPage').then(room => ({ default: room.PaperPage })))
const DocumentsPage = lazy(() => import('../reports/DocumentsPage').then(room => ({ default: room.DocumentsPage })))
const RebuildPage = lazy(() => import('../rebuilds').then(room => ({ default: room.RebuildPage })))

export function App() {
  const me = useMe()
  const { pathname } = useLocation()
  useTitle()
  if (!me.data && isSignedOut(me.error)) return <SignInPage />
  if (!me.data) return <WaitingPage for="Nailcrow" problem={me.error} />
  if (me.data.mustChange) return <ChooseOwnPasswordPage />
  if (me.data.mustSetUp) return <SetUpSecondFactorPage />
  return (
    <Frame me={me.data}>
      <SignInOver me={me.data} />
      <RoomBoundary at={pathname}>
        <Suspense fallback={<WaitingPage for="the page" />}>
          <Routes>
            <Route path="/" element={<MyDayPage />} />
            <Route path="/report" element={<ReportFaultPage />} />
            <Route path="/desk" element={<DeskPage />} />
            <Route path="/intake" element={<IntakePage />} />
            <Route path="/machines" element={<MachinesPage />} />
            <Route path="/machines/new" element={<AddMachinePage />} />
            <Route path="/machines/:asset" element={<MachinePage />} />
            <Route path="/customers" element={<CustomersPage />} />
            <Route path="/customers/:name" element={<CustomerPage />} />
            <Route path="/drives/:serial" element={<DrivePage />} />
            <Route path="/stores" element={<StoresPage />} />
            <Route path="/stores/outbox" element={<OutboxPage />} />
            <Route path="/stores/supplies" element={<SuppliesPage />} />
            <Route path="/stores/warranties" element={<WarrantiesPage />} />
            <Route path="/you" element={<YouPage />} />
            <Route path="/people" element={<PeoplePage />} />
            <Route path="/people/security" element={<SecurityLogPage />} />
            <Route path="/people/:name" element={<PersonPage />} />
            <Route path="/procedures" element={<LibraryPage />} />
            <Route path="/procedures/:id" element={<ProcedurePage />} />
            <Route path="/lists" element={<ListsPage />} />
            <Route path="/tickets/:number" element={<TicketRoute />}>
              <Route index element={<TicketPage />} />
              <Route path="bring" element={<BringPage />} />
              <Route path="run" element={<RunPage />} />
              <Route path="paper" element={<PaperPage />} />
              <Route path="documents" element={<DocumentsPage />} />
              <Route path="sign" element={<SignPage />} />
              <Route path="rebuild" element={<RebuildPage />} />
              <Route path="return" element={<ReturnPage />} />
              <Route path="snapshot" element={<HandSnapshotPage />} />
            </Route>
            <Route path="*" element={<NoSuchPage />} />
          </Routes>
        </Suspense>
      </RoomBoundary>
    </Frame>
  )
}

function NoSuchPage() {
  return (
    <main className="page">
      <p role="alert" className="panel">
        There is no such page. <Link to="/">My day</Link> leads to all there are.
      </p>
    </main>
  )
}
