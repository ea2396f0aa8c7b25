import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import type { Plugin } from "vite";
import { VitePWA } from "vite-plugin-pwa";
import { defineConfig } from "vitest/config";

/** What the browser keeps, so that the app opens and a session runs without a network once it was visited. */
const offline = VitePWA({
  registerType: "autoUpdate",
  injectRegister: "script",
  manifest: {
    name: "Yoisho",
    short_name: "Yoisho",
    description: "Striking sessions: say what it is for, see what it does, run it, log it.",
    start_url: "/",
    display: "standalone",
    background_color: "#F5F0E6",
    theme_color: "#F5F0E6",
    icons: [{ src: "/icon.svg", sizes: "any", type: "image/svg+xml", purpose: "any" }],
  },
  workbox: {
    globPatterns: ["**/*.{js,css,html,svg,woff2}"],
    globIgnores: ["athlete.html", "athlete-offline.js", "direct.js"],
    importScripts: ["direct.js"],
    navigateFallback: null,
    runtimeCaching: [
      {
        // The server's page is asked for first: it sets the cookie that requests carry back.
        urlPattern: ({ request }) => request.mode === "navigate",
        handler: "NetworkFirst",
        options: { cacheName: "yoisho-page", precacheFallback: { fallbackURL: "/index.html" } },
      },
      {
        // No more of the club than a run needs; it is thrown away as the coach signs out.
        urlPattern: ({ url, request }) =>
          request.method === "GET" && /^\/api\/(me|vocabulary|sessions\/\d+\/(run|on-floor))$/.test(url.pathname),
        handler: "NetworkFirst",
        options: { cacheName: "yoisho-runs", networkTimeoutSeconds: 4 },
      },
    ],
  },
});

const FIRST_FONTS = /(kaisei-opti-latin-700|source-sans-3-latin-wght).*\.woff2$/;

/** The fonts of the first page are fetched with it, so that no line moves as they come. */
const fontsFirst: Plugin = {
  name: "fonts-first",
  transformIndexHtml: {
    order: "post",
    handler: (_html, { bundle }) =>
      Object.keys(bundle ?? {})
        .filter((file) => FIRST_FONTS.test(file))
        .map((file) => ({
          tag: "link",
          attrs: { rel: "preload", as: "font", type: "font/woff2", crossorigin: "", href: `/${file}` },
          injectTo: "head-prepend" as const,
        })),
  },
};

/** Whoever opens a link keeps that page alone, and not the whole app: it has a worker of its own. */
const athleteAlone: Plugin = {
  name: "athlete-alone",
  enforce: "post",
  transformIndexHtml: {
    order: "post",
    handler: (html, { filename }) =>
      filename.endsWith("athlete.html") ? html.replace(/\s*<(?:link rel="manifest"|script id="vite-plugin-pwa)[^>]*>(?:<\/script>)?/g, "") : html,
  },
};

const server = { target: process.env.YOISHO_SERVER ?? "http://127.0.0.1:8000", changeOrigin: false };

export default defineConfig({
  plugins: [react(), tailwindcss(), offline, fontsFirst, athleteAlone],
  build: {
    target: "es2022",
    sourcemap: false,
    assetsInlineLimit: 0,
    rollupOptions: { input: ["index.html", "athlete.html"] },
  },
  server: {
    proxy: { "/api": server, "/_allauth": server },
  },
  // A test that needs a page says so in its first line: the others start in half the time. All of them share what they
  // import: to load it anew for each of sixty files took five times as long as the tests themselves.
  test: { environment: "node", include: ["src/**/*.test.ts", "src/**/*.test.tsx"], pool: "threads", isolate: false },
});
