import { lazy, Suspense, useRef, type ReactNode } from 'react';
import { BrowserRouter, Navigate, Route, Routes, useLocation } from 'react-router';
import { PasswordForOncePage } from './account/accounts/password-for-once-page.js';
import { SignIn } from './account/sign-in.js';
import { SignInAgain } from './account/sign-in-again.js';
import { CallsBack } from './bench/at-hand/calls-back.js';
import { OutboxSender } from './outbox/outbox-sender.js';
import { WaitingHere } from './outbox/waiting-here.js';
import { api, asProblem } from './state/api.js';
import { isAway } from './state/ask-server.js';
import { LiveChanges } from './state/live-changes.js';
import { useSession } from './state/session.js';
import { ClockOff } from './ui/clock-off.js';
import { beInZone } from './ui/house-zone.js';
import { keysRestFor } from './ui/keys/bounce.js';
import { useKeptFocus } from './ui/keys/use-kept-focus.js';
import { Busy, Notice } from './ui/notice.js';
import { fetched } from './ui/part-missing.js';
import { NewRelease } from './ui/new-release.js';
import { placeOf } from './ui/places.js';
import { PlaceBoundary } from './ui/place-boundary.js';
import { KeepsNothing } from './ui/keeps-nothing.js';
import { OutOfReach } from './ui/out-of-reach.js';
import { usePageTitle } from './ui/use-page-title.js';
import { Strap } from './ui/strap.js';
import classes from './app.module.css';

const LinePage = lazy(fetched(() => import('./line/line-page.js').then((m) => ({ default: m.LinePage }))));
const BenchHome = lazy(fetched(() => import('./bench/bench-home.js').then((m) => ({ default: m.BenchHome }))));
const BenchPage = lazy(fetched(() => import('./bench/bench-page.js').then((m) => ({ default: m.BenchPage }))));
const OrdersPage = lazy(fetched(() => import('./orders/orders-page.js').then((m) => ({ default: m.OrdersPage }))));
const OrderPage = lazy(fetched(() => import('./orders/order/order-page.js').then((m) => ({ default: m.OrderPage }))));
const AddUnit = lazy(fetched(() => import('./orders/intake/add-unit.js').then((m) => ({ default: m.AddUnit }))));
const TakeByHand = lazy(
  fetched(() => import('./orders/intake/take-by-hand.js').then((m) => ({ default: m.TakeByHand }))),
);
const LibraryPage = lazy(fetched(() => import('./library/library-page.js').then((m) => ({ default: m.LibraryPage }))));
const PlanPage = lazy(fetched(() => import('./plan/plan-page.js').then((m) => ({ default: m.PlanPage }))));
const PeoplePage = lazy(fetched(() => import('./plan/people/people-page.js').then((m) => ({ default: m.PeoplePage }))));
const WhatIfPage = lazy(
  fetched(() => import('./plan/what-if/what-if-page.js').then((m) => ({ default: m.WhatIfPage }))),
);
const AfterwardsPage = lazy(
  fetched(() => import('./plan/afterwards-page.js').then((m) => ({ default: m.AfterwardsPage }))),
);
const LearntPage = lazy(
  fetched(() => import('./library/learnt/learnt-page.js').then((m) => ({ default: m.LearntPage }))),
);
const WorkbenchPage = lazy(
  fetched(() => import('./library/workbench/workbench-page.js').then((m) => ({ default: m.WorkbenchPage }))),
);
const AccountsPage = lazy(
  fetched(() => import('./account/accounts/accounts-page.js').then((m) => ({ default: m.AccountsPage }))),
);
const HousePage = lazy(fetched(() => import('./account/house-page.js').then((m) => ({ default: m.HousePage }))));
const StatusPage = lazy(fetched(() => import('./account/status-page.js').then((m) => ({ default: m.StatusPage }))));
const SessionsPage = lazy(
  fetched(() => import('./account/sessions-page.js').then((m) => ({ default: m.SessionsPage }))),
);
const PracticePage = lazy(
  fetched(() => import('./practice/practice-page.js').then((m) => ({ default: m.PracticePage }))),
);
const LedgerPage = lazy(fetched(() => import('./ledger/ledger-page.js').then((m) => ({ default: m.LedgerPage }))));
const BackPage = lazy(fetched(() => import('./ledger/back/back-page.js').then((m) => ({ default: m.BackPage }))));
const LifePage = lazy(fetched(() => import('./ledger/life/life-page.js').then((m) => ({ default: m.LifePage }))));
const ElsewherePage = lazy(
  fetched(() => import('./ledger/elsewhere/elsewhere-page.js').then((m) => ({ default: m.ElsewherePage }))),
);
const ElsewhereRecordPage = lazy(
  fetched(() => import('./ledger/elsewhere/elsewhere-record.js').then((m) => ({ default: m.ElsewhereRecordPage }))),
);
const QualityPage = lazy(
  fetched(() => import('./ledger/quality/quality-page.js').then((m) => ({ default: m.QualityPage }))),
);
const MovedPage = lazy(fetched(() => import('./ledger/moved/moved-page.js').then((m) => ({ default: m.MovedPage }))));
const CheckpointsPage = lazy(
  fetched(() => import('./ledger/checkpoints-page.js').then((m) => ({ default: m.CheckpointsPage }))),
);
const RecordPage = lazy(fetched(() => import('./ledger/record-page.js').then((m) => ({ default: m.RecordPage }))));

/** Signs in first, then shows the place that the address names. */
export function App() {
  const { data, error, refetch } = api.useWelcomeQuery(null);
  const { who, lost } = useSession();
  const problem = asProblem(error);
  if (problem && !data)
    return (
      <Notice
        kind="stop"
        title="Cannot reach the server"
        says={
          isAway(problem)
            ? 'Nobody is signed in on this device, and signing in needs the server. The page goes on by itself as soon as it answers.'
            : problem.message
        }
        act={{ label: 'Try again', onAct: () => void refetch() }}
        page
      />
    );
  if (!data) return <Busy />;
  beInZone(data.house.zone);
  keysRestFor(data.house.bounceMs);
  if (!who) return <SignIn demoAccounts={data.demoAccounts} needsOwner={data.needsOwner} />;
  if (who.isPasswordForOnce) return <PasswordForOncePage name={who.name} />;
  return (
    <BrowserRouter>
      <a className={classes['skip']} href="#work">
        Skip to the work
      </a>
      <OutboxSender />
      <LiveChanges />
      <Strap who={who}>
        <NewRelease />
        <CallsBack />
        <OutOfReach />
        <WaitingHere />
        <ClockOff />
      </Strap>
      <KeepsNothing />
      <Work>
        <Routes>
          <Route path="/" element={<Navigate to="/line" replace />} />
          <Route path="/line" element={<LinePage />} />
          <Route path="/line/:orderId" element={<LinePage />} />
          <Route path="/plan" element={<PlanPage />} />
          <Route path="/plan/people" element={<PeoplePage />} />
          <Route path="/plan/what-if" element={<WhatIfPage />} />
          <Route path="/plan/afterwards" element={<AfterwardsPage />} />
          <Route path="/bench" element={<BenchHome />} />
          <Route path="/bench/:unitId" element={<BenchPage />} />
          <Route path="/orders" element={<OrdersPage />} />
          <Route path="/orders/new" element={<TakeByHand />} />
          <Route path="/orders/add/:serial" element={<AddUnit />} />
          <Route path="/orders/:orderId" element={<OrderPage />} />
          <Route path="/library" element={<LibraryPage />} />
          <Route path="/library/learnt" element={<LearntPage />} />
          <Route path="/library/workbench" element={<WorkbenchPage />} />
          <Route path="/library/:kind" element={<LibraryPage />} />
          <Route path="/library/:kind/:id" element={<LibraryPage />} />
          <Route path="/library/:kind/:id/:view" element={<LibraryPage />} />
          <Route path="/signed-in" element={<SessionsPage />} />
          <Route path="/house" element={<HousePage />} />
          <Route path="/accounts" element={<AccountsPage />} />
          <Route path="/status" element={<StatusPage />} />
          <Route path="/practice" element={<PracticePage />} />
          <Route path="/practice/:mapId" element={<PracticePage />} />
          <Route path="/ledger" element={<LedgerPage />} />
          <Route path="/ledger/unit/:serial" element={<LifePage />} />
          <Route path="/ledger/elsewhere" element={<ElsewherePage />} />
          <Route path="/ledger/elsewhere/:visitId" element={<ElsewhereRecordPage />} />
          <Route path="/ledger/quality" element={<QualityPage />} />
          <Route path="/ledger/moved" element={<MovedPage />} />
          <Route path="/ledger/checkpoints" element={<CheckpointsPage />} />
          <Route path="/ledger/:visitId" element={<RecordPage />} />
          <Route path="/ledger/:visitId/back" element={<BackPage />} />
          <Route
            path="*"
            element={
              <Notice
                kind="note"
                title="Nothing is here"
                says="This address leads nowhere. Scan a serial, or choose a place above."
                page
              />
            }
          />
        </Routes>
      </Work>
      {lost && <SignInAgain />}
    </BrowserRouter>
  );
}

/** One place at a time: what one cannot show is no reason to keep back the next. */
function Work({ children }: { readonly children: ReactNode }) {
  const { pathname } = useLocation();
  const page = useRef<HTMLElement>(null);
  useKeptFocus(page, pathname);
  usePageTitle(page, placeOf(pathname));
  return (
    <main ref={page} id="work" className={classes['work']} tabIndex={-1}>
      <PlaceBoundary key={pathname.split('/')[1]}>
        <Suspense fallback={<Busy />}>{children}</Suspense>
      </PlaceBoundary>
    </main>
  );
}
