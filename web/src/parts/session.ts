import { createContext, useContext } from "react";
import type { Schemas } from "../api/client";

export type Session = Schemas["Session"];
export type Role = Schemas["Role"];

export const SessionContext = createContext<Session | null>(null);

/** Who is signed in; only used inside the shell, where somebody is. */
export function useSession(): Session {
  const s = useContext(SessionContext);
  if (!s) throw new Error("useSession outside the shell");
  return s;
}

/** Whether the person may do what needs one of the roles. A chief may do all but fly without being a pilot. */
export function useMay(): (...roles: Role[]) => boolean {
  const held = useSession().person.roles;
  return (...roles) => held.includes("chief") || roles.some((r) => held.includes(r));
}
