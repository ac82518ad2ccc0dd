import { api, ask, type Schemas } from "../api/client";
import { wrote } from "../api/touched";
import { pressKind } from "../outbox/kinds";
import { withoutRefused } from "../outbox/photos";

pressKind<Schemas["NewDefect"]>("defect.raise", {
  said: (b) => `Defect: ${b.title}`,
  send: async (p, { header, signal }, qc) => {
    const body = { ...p.body, photos: withoutRefused(p.body.photos) };
    await ask(api.POST("/defects", { params: { header }, signal, body }));
    void wrote(qc, "defects", "groundings");
  },
});
