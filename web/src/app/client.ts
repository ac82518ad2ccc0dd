import { QueryCache, QueryClient } from "@tanstack/react-query";
import { ProblemError } from "../api/client";
import { keys } from "../api/keys";

/** The one cache of answers. */
export const client: QueryClient = new QueryClient({
  // A session that has ended leads to the sign-in page, whichever view finds out.
  queryCache: new QueryCache({
    onError: (e) => {
      if (e instanceof ProblemError && e.status === 401) client.setQueryData(keys.session, null);
    },
  }),
  defaultOptions: {
    queries: {
      staleTime: 2000,
      networkMode: "always",
      retry: (n, e) => n < 2 && e instanceof ProblemError && e.status === 0,
      refetchOnWindowFocus: true,
    },
    mutations: { networkMode: "always" },
  },
});
