import { lazy } from "react";

export const OwnSecrets = lazy(() => import("../people/OwnSecrets").then((m) => ({ default: m.OwnSecrets })));

export const FirstRun = lazy(() => import("./FirstRun").then((m) => ({ default: m.FirstRun })));

export const FleetView = lazy(() => import("../fleet/FleetView").then((m) => ({ default: m.FleetView })));

export const AircraftView = lazy(() =>
  import("../fleet/AircraftView").then((m) => ({ default: m.AircraftView })),
);

export const PacksView = lazy(() => import("../rack/PacksView").then((m) => ({ default: m.PacksView })));

export const PackView = lazy(() => import("../rack/PackView").then((m) => ({ default: m.PackView })));

export const LogView = lazy(() => import("../logbook/LogView").then((m) => ({ default: m.LogView })));

export const RecordsView = lazy(() =>
  import("../records/RecordsView").then((m) => ({ default: m.RecordsView })),
);

export const CrewView = lazy(() => import("../people/CrewView").then((m) => ({ default: m.CrewView })));

export const SetupView = lazy(() => import("../setup/SetupView").then((m) => ({ default: m.SetupView })));

export const WorkshopView = lazy(() =>
  import("../workshop/WorkshopView").then((m) => ({ default: m.WorkshopView })),
);

export const OrderView = lazy(() => import("../workshop/OrderView").then((m) => ({ default: m.OrderView })));

export const NewOrderView = lazy(() =>
  import("../workshop/NewOrderView").then((m) => ({ default: m.NewOrderView })),
);

export const PartView = lazy(() => import("../workshop/PartView").then((m) => ({ default: m.PartView })));

export const TonightView = lazy(() =>
  import("../evening/TonightView").then((m) => ({ default: m.TonightView })),
);

export const SitesView = lazy(() => import("../sites/SitesView").then((m) => ({ default: m.SitesView })));

export const SiteView = lazy(() => import("../sites/SiteView").then((m) => ({ default: m.SiteView })));

export const JobsView = lazy(() => import("../jobs/JobsView").then((m) => ({ default: m.JobsView })));

export const JobView = lazy(() => import("../jobs/JobView").then((m) => ({ default: m.JobView })));

export const SprayView = lazy(() => import("../spraying/SprayView").then((m) => ({ default: m.SprayView })));

export const MissionView = lazy(() =>
  import("../missions/MissionView").then((m) => ({ default: m.MissionView })),
);

export const CanopiesView = lazy(() =>
  import("../missions/CanopiesView").then((m) => ({ default: m.CanopiesView })),
);

export const CamerasView = lazy(() =>
  import("../missions/CamerasView").then((m) => ({ default: m.CamerasView })),
);

export const NozzlesView = lazy(() =>
  import("../spraying/NozzlesView").then((m) => ({ default: m.NozzlesView })),
);

export const BenchView = lazy(() => import("../bench/BenchView").then((m) => ({ default: m.BenchView })));

export const CalculatorView = lazy(() =>
  import("../bench/CalculatorView").then((m) => ({ default: m.CalculatorView })),
);

export const RotationView = lazy(() =>
  import("../rotation/RotationView").then((m) => ({ default: m.RotationView })),
);

export const PersonView = lazy(() => import("../people/PersonView").then((m) => ({ default: m.PersonView })));

export const PracticesView = lazy(() =>
  import("../practice/PracticesView").then((m) => ({ default: m.PracticesView })),
);

export const RulesView = lazy(() => import("../rulebook/RulesView").then((m) => ({ default: m.RulesView })));

export const LabelView = lazy(() => import("../find/LabelView").then((m) => ({ default: m.LabelView })));

export const LabelsView = lazy(() => import("../find/LabelsView").then((m) => ({ default: m.LabelsView })));

export const ListView = lazy(() =>
  import("../walkround/lists/ListView").then((m) => ({ default: m.ListView })),
);

export const TypeView = lazy(() => import("../types/TypeView").then((m) => ({ default: m.TypeView })));

export const PartsView = lazy(() => import("./PartsView").then((m) => ({ default: m.PartsView })));
