/** The page of a link keeps itself on the device that opened it: it was loaded before its worker stood ready. */

const SHELF = "yoisho-athlete";

export async function keepThisPage(): Promise<void> {
  if (!("serviceWorker" in navigator)) return;
  try {
    await navigator.serviceWorker.register("/athlete-offline.js", { scope: "/s/" });
    const shelf = await caches.open(SHELF);
    const loaded = performance.getEntriesByType("resource").map(({ name }) => new URL(name));
    const own = loaded.filter(({ origin, pathname }) => origin === location.origin && pathname.startsWith("/assets/"));
    const wanted = [location.pathname, "/icon.svg", ...new Set(own.map(({ pathname }) => pathname))];
    await Promise.all(
      wanted.map(async (address) => (await shelf.match(address)) ?? (await shelf.add(address).catch(() => {}))),
    );
  } catch {
    // A browser that keeps nothing costs the page without a network, not the page.
  }
}
