/** Keeps the page of a link as it was last seen, so that its session runs without a network. The page fills the shelf. */
const SHELF = "yoisho-athlete";

self.addEventListener("install", () => self.skipWaiting());
self.addEventListener("activate", (event) => event.waitUntil(self.clients.claim()));

self.addEventListener("fetch", (event) => {
  const { request } = event;
  const { origin, pathname } = new URL(request.url);
  if (request.method !== "GET" || origin !== self.location.origin) return;
  // Speech is kept by the page itself; a file below /assets never changes.
  const page = request.mode === "navigate" || /^\/api\/shared\/[^/]+$/.test(pathname);
  if (!page && !pathname.startsWith("/assets/") && pathname !== "/icon.svg") return;
  event.respondWith(page ? freshOrKept(request) : keptOrFresh(request));
});

async function freshOrKept(request) {
  try {
    const answer = await fetch(request);
    // A link that has ended is not kept open by this device.
    if (answer.ok || answer.status === 410 || answer.status === 404) {
      const shelf = await caches.open(SHELF);
      await (answer.ok ? shelf.put(request, answer.clone()) : shelf.delete(request));
    }
    return answer;
  } catch (error) {
    const kept = await caches.match(request, { cacheName: SHELF });
    if (kept) return kept;
    throw error;
  }
}

async function keptOrFresh(request) {
  const kept = await caches.match(request, { cacheName: SHELF });
  if (kept) return kept;
  const answer = await fetch(request);
  if (answer.ok) await (await caches.open(SHELF)).put(request, answer.clone());
  return answer;
}
