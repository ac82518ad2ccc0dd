import { warmable } from "../parts/warm";
import { held } from "./held";

/** The views of the field; they are on the device before the network goes, and open with the press. */
export const WalkStart = held(() => import("../walkround/WalkStart").then((m) => m.WalkStart));
export const WalkView = held(() => import("../walkround/WalkView").then((m) => m.WalkView));
export const GateView = held(() => import("../flights/gate/GateView").then((m) => m.GateView));
export const FlyView = held(() => import("../flights/FlyView").then((m) => m.FlyView));

export const inTheField = [WalkStart, WalkView, GateView, FlyView];

warmable("fly", FlyView.fetch);
