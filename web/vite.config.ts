import { createHash } from "node:crypto";
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";
import { VitePWA } from "vite-plugin-pwa";

/** Names this build by its sources, so that the same sources are the same build. */
function build(): string {
  const h = createHash("sha256").update(readFileSync("package-lock.json"));
  for (const f of readdirSync("src", { recursive: true, withFileTypes: true }).sort((a, b) =>
    join(a.parentPath, a.name) < join(b.parentPath, b.name) ? -1 : 1,
  ))
    if (f.isFile()) h.update(f.name).update(readFileSync(join(f.parentPath, f.name)));
  return h.digest("hex").slice(0, 16);
}

// The build is embedded into the Go program and served by it.
export default defineConfig({
  plugins: [
    react(),
    VitePWA({
      registerType: "prompt", // a new version waits for a moment in which nothing is in hand
      injectRegister: false,
      manifest: {
        name: "Mainstay",
        short_name: "Mainstay",
        description: "May this aircraft fly now, and if not, what must be done first?",
        start_url: "/",
        display: "standalone",
        background_color: "#f6f1e4",
        theme_color: "#f6f1e4",
        icons: [
          { src: "/icon.svg", sizes: "any", type: "image/svg+xml" },
          { src: "/icon-192.png", sizes: "192x192", type: "image/png", purpose: "any" },
          { src: "/icon-512.png", sizes: "512x512", type: "image/png", purpose: "any" },
          { src: "/icon-512.png", sizes: "512x512", type: "image/png", purpose: "maskable" },
        ],
      },
      workbox: {
        // The whole program is on the device; answers of the server never are.
        globPatterns: ["**/*.{js,css,html,svg,png,woff2,wasm}"],
        maximumFileSizeToCacheInBytes: 8 * 1024 * 1024,
        navigateFallback: "index.html",
        navigateFallbackDenylist: [/^\/api\//, /^\/(healthz|readyz|metrics)$/],
        cleanupOutdatedCaches: true,
        clientsClaim: true, // the first visit is kept too
      },
    }),
  ],
  define: { __BUILD__: JSON.stringify(build()) },
  build: { outDir: "dist", emptyOutDir: true, sourcemap: false },
  server: { proxy: { "/api": "http://127.0.0.1:8080", "/healthz": "http://127.0.0.1:8080" } },
  // Pure tests: one load of the modules serves them all. A loaded machine stands still for seconds.
  test: { isolate: false, pool: "threads", testTimeout: 60_000 },
  css: {
    preprocessorOptions: {
      scss: {
        quietDeps: true,
        silenceDeprecations: ["import", "global-builtin", "color-functions", "if-function"],
      },
    },
  },
});
