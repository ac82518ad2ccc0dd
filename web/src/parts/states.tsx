import type { UseQueryResult } from "@tanstack/react-query";
import { useEffect, useState, type ReactNode } from "react";
import { Button } from "react-bootstrap";
import { ProblemError } from "../api/client";
import { Flag } from "./Flag";
import { Notice } from "./Notice";

/**
 * An error as people read it: what happened, what is safe, what to do; paths names the
 * fields of a file, where no form shows them.
 */
export function Problem({ error, retry, paths }: { error: unknown; retry?: () => void; paths?: boolean }) {
  const fields = paths && error instanceof ProblemError ? error.fields.filter((f) => f.field) : [];
  const title = error instanceof ProblemError ? error.title : "Something went wrong";
  const detail =
    error instanceof Error
      ? error.message
      : "Nothing was lost. Load the page again; if it stays, tell the chief.";
  return (
    <Notice verdict="stop" role="alert">
      <Flag verdict="stop" />
      <div>
        <strong>{title}</strong>
        <p>{detail}</p>
        {fields.length > 0 && (
          <ul className="mb-0">
            {fields.map((f) => (
              <li key={f.field + f.sentence}>
                <code>{f.field}</code> {f.sentence}
              </li>
            ))}
          </ul>
        )}
        {retry && (
          <Button variant="outline-primary" size="sm" className="mt-2" onClick={retry}>
            Try again
          </Button>
        )}
      </div>
    </Notice>
  );
}

export function Loading({ what }: { what: string }) {
  return (
    <div className="soft py-4" role="status">
      Loading {what} …
    </div>
  );
}

/** Long work that is under way: what it is, how much of it is done where that is known, and for how long it has been. */
export function Busy({ what, share }: { what: string; share?: number }) {
  const [since] = useState(() => Date.now());
  const [now, setNow] = useState(since);
  useEffect(() => {
    const t = setInterval(() => setNow(Date.now()), 500);
    return () => clearInterval(t);
  }, []);
  const s = Math.floor((now - since) / 1000);
  return (
    <div role="status" className="my-2">
      <progress className="w-100" aria-label={what} value={share} />
      {what}{" "}
      <span className="fig soft">
        {share !== undefined && `${Math.floor(share * 100)} % `}
        {s > 0 && `${s} s`}
      </span>
    </div>
  );
}

export function Empty({ children, action }: { children: ReactNode; action?: ReactNode }) {
  return (
    <Notice>
      <div>
        <p>{children}</p>
        {action && <div className="mt-2">{action}</div>}
      </div>
    </Notice>
  );
}

/** Shown above data that could not be brought up to date. */
export function Stale({ since }: { since: string }) {
  return (
    <Notice verdict="watch" role="status" className="mb-3">
      <Flag verdict="watch" />
      <p>No connection since {since}. What you see may be out of date; do not release on it.</p>
    </Notice>
  );
}

export interface QueryViewProps<T> {
  query: Pick<UseQueryResult<T>, "data" | "error" | "isError" | "dataUpdatedAt"> & { refetch: () => unknown };
  what: string;
  children: (data: T) => ReactNode;
}

/** Shows a query in each of its states; old data stays visible, and is called old, while the server is away. */
export function QueryView<T>({ query, what, children }: QueryViewProps<T>) {
  if (query.data !== undefined)
    return (
      <>
        {query.isError && (
          <Stale since={new Date(query.dataUpdatedAt).toLocaleTimeString("en-CA", { hourCycle: "h23" })} />
        )}
        {children(query.data)}
      </>
    );
  if (query.isError) return <Problem error={query.error} retry={() => void query.refetch()} />;
  return <Loading what={what} />;
}
