import { expect, it } from "vitest";
import { inHand } from "./inhand";

it.each(["/fly/1", "/walk/1", "/walk/start/2", "/gate/3"])("%s holds work in hand", (p) =>
  expect(inHand(p)).toBe(true),
);
it.each(["/", "/fleet/1", "/flyers", "/log", "/packs/fly/1"])("%s does not", (p) =>
  expect(inHand(p)).toBe(false),
);
