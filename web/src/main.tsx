import "@fontsource-variable/atkinson-hyperlegible-next/wght.css";
import "@fontsource-variable/atkinson-hyperlegible-mono/wght.css";
import "./styles/theme.scss";
import { createRoot } from "react-dom/client";
import { App } from "./app/App";
import { client } from "./app/client";
import { watchLink } from "./api/link";
import { bringBack, keepAnswers } from "./api/kept";
import "./app/presses";
import { applyTheme } from "./app/theme";
import { keepProgram } from "./app/version";
import { load } from "./outbox/store";

/** How long the page waits for what this device keeps, in ms; a broken store must not keep it closed. */
const patience = 800;

applyTheme();
watchLink();
keepProgram();
const ready = Promise.all([bringBack(client), load()]);
void Promise.race([ready, new Promise((go) => setTimeout(go, patience))]).then(() => {
  keepAnswers(client);
  createRoot(document.getElementById("root")!).render(<App />);
});
