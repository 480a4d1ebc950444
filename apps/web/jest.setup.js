/** What a browser has and jsdom has not. */
globalThis.structuredClone ??= (value) => (value === undefined ? undefined : JSON.parse(JSON.stringify(value)));
globalThis.ResizeObserver ??= class {
  observe() {}
  unobserve() {}
  disconnect() {}
};
