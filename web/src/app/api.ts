import { useWrite } from "../api/write";
import { api, ask, type Schemas } from "../api/client";

/** Sign in. */
export const useSignIn = () => useWrite((body: Schemas["SignIn"]) => ask(api.POST("/session", { body })));

/** Set up the crew and its first chief, once. */
export const useCreateCrew = () => useWrite((body: Schemas["NewCrew"]) => ask(api.POST("/setup", { body })));

/** Ends the session on this device. */
export const signOut = () => ask(api.DELETE("/session"));
