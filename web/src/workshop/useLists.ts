import { api, ask } from "../api/client";
import { keys } from "../api/keys";
import { usePages } from "../api/pages";

/** The defects of the whole fleet, open ones first. */
export const useDefects = () =>
  usePages({
    key: keys.defects,
    read: (cursor) => ask(api.GET("/defects", { params: { query: { cursor } } })),
    rows: (p) => p.defects,
  });

/** The work orders that are open, or all of them. */
export const useOrders = (all = false) =>
  usePages({
    key: keys.orders(all ? "all" : "open"),
    read: (cursor) => ask(api.GET("/work-orders", { params: { query: { all, cursor } } })),
    rows: (p) => p.orders,
  });
