import "@fontsource-variable/atkinson-hyperlegible-next/wght.css";
import "@fontsource-variable/atkinson-hyperlegible-mono/wght.css";
import "./styles/theme.scss";
import { createRoot } from "react-dom/client";
import { App } from "./app/App";
import { applyTheme } from "./app/theme";

applyTheme();
createRoot(document.getElementById("root")!).render(<App />);
