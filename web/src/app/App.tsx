import { QueryClientProvider, useQuery } from "@tanstack/react-query";
import { Component, lazy, Suspense, useEffect, type ReactNode } from "react";
import { BrowserRouter, Route, Routes, useLocation } from "react-router";
import { api, ask, ProblemError } from "../api/client";
import { keys } from "../api/keys";
import { Loading, Problem } from "../parts/states";
import { setDraftOwner } from "../parts/drafts";
import { setServerTime } from "../parts/time";
import { client } from "./client";
import { FlyView, GateView, inTheField, WalkStart, WalkView } from "./field";
import { SessionContext } from "../parts/session";
import { Shell } from "./Shell";
import { SignIn } from "./SignIn";
import { DayView } from "../day/DayView";

const OwnSecrets = lazy(() => import("../people/OwnSecrets").then((m) => ({ default: m.OwnSecrets })));
const FirstRun = lazy(() => import("./FirstRun").then((m) => ({ default: m.FirstRun })));
const FleetView = lazy(() => import("../fleet/FleetView").then((m) => ({ default: m.FleetView })));
const AircraftView = lazy(() => import("../fleet/AircraftView").then((m) => ({ default: m.AircraftView })));
const PacksView = lazy(() => import("../rack/PacksView").then((m) => ({ default: m.PacksView })));
const PackView = lazy(() => import("../rack/PackView").then((m) => ({ default: m.PackView })));
const LogView = lazy(() => import("../logbook/LogView").then((m) => ({ default: m.LogView })));
const RecordsView = lazy(() => import("../records/RecordsView").then((m) => ({ default: m.RecordsView })));
const CrewView = lazy(() => import("../people/CrewView").then((m) => ({ default: m.CrewView })));
const SetupView = lazy(() => import("../setup/SetupView").then((m) => ({ default: m.SetupView })));
const WorkshopView = lazy(() =>
  import("../workshop/WorkshopView").then((m) => ({ default: m.WorkshopView })),
);
const OrderView = lazy(() => import("../workshop/OrderView").then((m) => ({ default: m.OrderView })));
const NewOrderView = lazy(() =>
  import("../workshop/NewOrderView").then((m) => ({ default: m.NewOrderView })),
);
const PartView = lazy(() => import("../workshop/PartView").then((m) => ({ default: m.PartView })));
const TonightView = lazy(() => import("../evening/TonightView").then((m) => ({ default: m.TonightView })));
const SitesView = lazy(() => import("../sites/SitesView").then((m) => ({ default: m.SitesView })));
const SiteView = lazy(() => import("../sites/SiteView").then((m) => ({ default: m.SiteView })));
const JobsView = lazy(() => import("../jobs/JobsView").then((m) => ({ default: m.JobsView })));
const JobView = lazy(() => import("../jobs/JobView").then((m) => ({ default: m.JobView })));
const SprayView = lazy(() => import("../spraying/SprayView").then((m) => ({ default: m.SprayView })));
const MissionView = lazy(() => import("../missions/MissionView").then((m) => ({ default: m.MissionView })));
const CanopiesView = lazy(() =>
  import("../missions/CanopiesView").then((m) => ({ default: m.CanopiesView })),
);
const CamerasView = lazy(() => import("../missions/CamerasView").then((m) => ({ default: m.CamerasView })));
const NozzlesView = lazy(() => import("../spraying/NozzlesView").then((m) => ({ default: m.NozzlesView })));
const BenchView = lazy(() => import("../bench/BenchView").then((m) => ({ default: m.BenchView })));
const CalculatorView = lazy(() =>
  import("../bench/CalculatorView").then((m) => ({ default: m.CalculatorView })),
);
const RotationView = lazy(() =>
  import("../rotation/RotationView").then((m) => ({ default: m.RotationView })),
);
const PersonView = lazy(() => import("../people/PersonView").then((m) => ({ default: m.PersonView })));
const PracticesView = lazy(() =>
  import("../practice/PracticesView").then((m) => ({ default: m.PracticesView })),
);
const RulesView = lazy(() => import("../rulebook/RulesView").then((m) => ({ default: m.RulesView })));
const LabelView = lazy(() => import("../find/LabelView").then((m) => ({ default: m.LabelView })));
const LabelsView = lazy(() => import("../find/LabelsView").then((m) => ({ default: m.LabelsView })));
const ListView = lazy(() => import("../walkround/lists/ListView").then((m) => ({ default: m.ListView })));
const TypeView = lazy(() => import("../types/TypeView").then((m) => ({ default: m.TypeView })));
const PartsView = lazy(() => import("./PartsView").then((m) => ({ default: m.PartsView })));

/** Catches what no view caught, so that a mistake in one never blanks the whole tool. */
class Boundary extends Component<{ children: ReactNode }, { error?: unknown }> {
  override state: { error?: unknown } = {};
  static getDerivedStateFromError(error: unknown) {
    return { error };
  }
  override render() {
    if (this.state.error === undefined) return this.props.children;
    return (
      <Problem
        error={new Error("This view stopped working. What you saved is safe. Load the page again.")}
        retry={() => location.reload()}
      />
    );
  }
}

function Entry() {
  const { pathname } = useLocation();
  const session = useQuery({
    queryKey: keys.session,
    queryFn: async () => {
      try {
        const s = await ask(api.GET("/session"));
        setServerTime(s.now);
        return s;
      } catch (e) {
        if (e instanceof ProblemError && e.status === 401) return null;
        throw e;
      }
    },
    staleTime: 30_000,
    refetchInterval: 60_000,
  });
  const signedIn = Boolean(session.data);
  useEffect(() => {
    if (!signedIn) return;
    const soon = setTimeout(() => inTheField.forEach((v) => v.fetch()), 400);
    return () => clearTimeout(soon);
  }, [signedIn]);
  const setup = useQuery({
    queryKey: keys.setup,
    queryFn: () => ask(api.GET("/setup")),
    enabled: session.data === null,
  });
  if (session.data === undefined)
    return (
      <main className="front">
        <h1>Mainstay</h1>
        {session.isError ? (
          <Problem error={session.error} retry={() => void session.refetch()} />
        ) : (
          <Loading what="Mainstay" />
        )}
      </main>
    );
  if (session.data === null) {
    setDraftOwner("");
    if (!setup.data) return <Loading what="Mainstay" />;
    return setup.data.needed ? <FirstRun zones={setup.data.zones} /> : <SignIn />;
  }
  setDraftOwner(session.data.person.id);
  if (session.data.person.once !== "") return <OwnSecrets person={session.data.person} />;
  return (
    <SessionContext.Provider value={session.data}>
      <Shell>
        <Boundary key={pathname}>
          <Suspense fallback={<Loading what="view" />}>
            <Routes>
              <Route index element={<DayView />} />
              <Route path="sites" element={<SitesView />} />
              <Route path="sites/:id" element={<SiteView />} />
              <Route path="fleet" element={<FleetView />} />
              <Route path="fleet/:id" element={<AircraftView />} />
              <Route path="packs" element={<PacksView />} />
              <Route path="packs/:id" element={<PackView />} />
              <Route path="walk/start/:aircraft" element={<WalkStart />} />
              <Route path="walk/:id" element={<WalkView />} />
              <Route path="gate/:aircraft" element={<GateView />} />
              <Route path="fly/:id" element={<FlyView />} />
              <Route path="workshop" element={<WorkshopView />} />
              <Route path="workshop/orders/new" element={<NewOrderView />} />
              <Route path="workshop/orders/:id" element={<OrderView />} />
              <Route path="part/:id" element={<PartView />} />
              <Route path="tonight" element={<TonightView />} />
              <Route path="log" element={<LogView />} />
              <Route path="log/records" element={<RecordsView />} />
              <Route path="crew" element={<CrewView />} />
              <Route path="crew/:id" element={<PersonView />} />
              <Route path="jobs" element={<JobsView />} />
              <Route path="jobs/:id" element={<JobView />} />
              <Route path="jobs/:id/spray/:aircraft" element={<SprayView />} />
              <Route path="jobs/:id/mission/:aircraft" element={<MissionView />} />
              <Route path="canopies" element={<CanopiesView />} />
              <Route path="cameras" element={<CamerasView />} />
              <Route path="nozzles" element={<NozzlesView />} />
              <Route path="bench" element={<BenchView />} />
              <Route path="bench/:key" element={<CalculatorView />} />
              <Route path="rotation" element={<RotationView />} />
              <Route path="rules" element={<RulesView />} />
              <Route path="practices" element={<PracticesView />} />
              <Route path="checklists/:type" element={<ListView />} />
              <Route path="types/:key" element={<TypeView />} />
              <Route path="setup" element={<SetupView />} />
              <Route path="parts" element={<PartsView />} />
              <Route path="l/:code" element={<LabelView />} />
              <Route path="labels" element={<LabelsView />} />
              <Route
                path="*"
                element={
                  <Problem error={new Error("There is nothing at this address. Go on from the Day view.")} />
                }
              />
            </Routes>
          </Suspense>
        </Boundary>
      </Shell>
    </SessionContext.Provider>
  );
}

export function App() {
  return (
    <QueryClientProvider client={client}>
      <BrowserRouter useTransitions={false}>
        <Suspense fallback={<Loading what="Mainstay" />}>
          <Entry />
        </Suspense>
      </BrowserRouter>
    </QueryClientProvider>
  );
}
