import { Route, Routes } from "react-router";
import { Problem } from "../parts/states";
import { FlyView, GateView, WalkStart, WalkView } from "./field";
import { DayView } from "../day/DayView";
import {
  FleetView,
  AircraftView,
  PacksView,
  PackView,
  LogView,
  RecordsView,
  CrewView,
  SetupView,
  WorkshopView,
  OrderView,
  NewOrderView,
  PartView,
  TonightView,
  SitesView,
  SiteView,
  JobsView,
  JobView,
  SprayView,
  MissionView,
  CanopiesView,
  CamerasView,
  NozzlesView,
  BenchView,
  CalculatorView,
  RotationView,
  PersonView,
  PracticesView,
  RulesView,
  LabelView,
  LabelsView,
  ListView,
  TypeView,
  PartsView,
} from "./views";

/** Every address of the application, and the view that stands there. */
export function Ways() {
  return (
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
        element={<Problem error={new Error("There is nothing at this address. Go on from the Day view.")} />}
      />
    </Routes>
  );
}
