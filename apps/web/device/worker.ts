/** The service worker of the application: everything of it is on the device, and a new version waits until it is taken. */
const FILE = "/service-worker.js";
/** A page that stands open for days looks for a new version so often, ms. */
const LOOK_MS = 3_600_000;

/** Registers it, and calls when a new version is there; `take` brings it in and loads the page anew. */
export function registerWorker(onNew: (take: () => void) => void): () => void {
  const container = globalThis.navigator?.serviceWorker;
  if (!container) return () => undefined;
  let taking = false;
  const changed = (): void => {
    if (taking) globalThis.location.reload();
  };
  container.addEventListener("controllerchange", changed);
  const offer = (worker: ServiceWorker): void =>
    onNew(() => {
      taking = true;
      worker.postMessage({ what: "take-over" });
    });
  let timer: ReturnType<typeof setInterval> | undefined;
  void container
    .register(FILE)
    .then((registration) => {
      if (registration.waiting && container.controller) offer(registration.waiting);
      registration.addEventListener("updatefound", () => {
        const fresh = registration.installing;
        fresh?.addEventListener("statechange", () => {
          // The first one of all is no new version.
          if (fresh.state === "installed" && container.controller) offer(fresh);
        });
      });
      timer = setInterval(() => void registration.update().catch(() => undefined), LOOK_MS);
      void container.ready.then(() => {
        document.documentElement.dataset["parts"] = "here";
      });
    })
    // Without one the application needs the network to open, and works all the same.
    .catch(() => undefined);
  return () => {
    clearInterval(timer);
    container.removeEventListener("controllerchange", changed);
  };
}
