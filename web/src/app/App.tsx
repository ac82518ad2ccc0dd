import { Ways } from "./Ways";
import { QueryClientProvider, useQuery } from "@tanstack/react-query";
import { Suspense, useEffect } from "react";
import { BrowserRouter, useLocation } from "react-router";
import { api, ask, ProblemError } from "../api/client";
import { keys } from "../api/keys";
import { Loading, Problem } from "../parts/states";
import { setDraftOwner } from "../parts/drafts";
import { setServerTime } from "../parts/time";
import { client } from "./client";
import { inTheField } from "./field";
import { SessionContext } from "../parts/session";
import { Shell } from "./Shell";
import { SignIn } from "./SignIn";
import { OwnSecrets, FirstRun } from "./views";
import { Boundary } from "./Boundary";

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
      <main className="container py-5" style={{ maxWidth: 560 }}>
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
            <Ways />
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
