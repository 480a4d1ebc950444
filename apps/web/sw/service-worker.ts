import { cleanupOutdatedCaches, createHandlerBoundToURL, precacheAndRoute, type PrecacheEntry } from "workbox-precaching";
import { NavigationRoute, registerRoute } from "workbox-routing";
import { CacheFirst } from "workbox-strategies";

/** The scope of a service worker, as far as it is used here; the libraries of the page and of workers do not go together. */
interface Scope {
  __WB_MANIFEST: (PrecacheEntry | string)[];
  addEventListener(kind: "message", heard: (event: { data: unknown }) => void): void;
  addEventListener(kind: "activate", heard: (event: { waitUntil: (work: Promise<unknown>) => void }) => void): void;
  skipWaiting(): Promise<void>;
}
declare const self: Scope;
/** Where what reads pictures is in this build, written in when it is built. */
declare const PAGE_READING: string;

// Every file of the build, by a list made when it was built; pages are the one page. What the kitchen says (/api) is never answered from here.
precacheAndRoute(self.__WB_MANIFEST);
cleanupOutdatedCaches();
registerRoute(new NavigationRoute(createHandlerBoundToURL("/index.html"), { denylist: [/^\/api\b/] }));

// What reads pages from pictures is kept when it is first used; its address changes with its content.
const READING = "page-reading";
registerRoute(/\/page-reading\//, new CacheFirst({ cacheName: READING }));
self.addEventListener("activate", (event) =>
  event.waitUntil(
    caches.open(READING).then(async (cache) => {
      for (const kept of await cache.keys()) if (!new URL(kept.url).pathname.startsWith(PAGE_READING)) await cache.delete(kept);
    }),
  ),
);

// A new version waits until the page says that it may take over.
self.addEventListener("message", ({ data }) => {
  if ((data as { what?: unknown } | null)?.what === "take-over") void self.skipWaiting();
});
