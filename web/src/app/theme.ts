export type Theme = "light" | "dark";

export function currentTheme(): Theme {
  try {
    return localStorage.getItem("mainstay.theme") === "dark" ? "dark" : "light";
  } catch {
    return "light";
  }
}

export function applyTheme(theme: Theme = currentTheme()) {
  document.documentElement.dataset.bsTheme = theme;
  try {
    localStorage.setItem("mainstay.theme", theme);
  } catch {
    /* without storage the theme lasts as long as the page */
  }
}
