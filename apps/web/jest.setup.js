/** What a browser has and jsdom has not. */
globalThis.structuredClone ??= (value) => (value === undefined ? undefined : JSON.parse(JSON.stringify(value)));
globalThis.ResizeObserver ??= class {
  observe() {}
  unobserve() {}
  disconnect() {}
};

/** There are no workers in jsdom: what they do is done in the page. */
require("./device/workers").runHere(require("./workers/tasks").perform);

/** What a search becomes once it is fetched; the plain field before it is driven in the browser. */
jest.mock("./ui/name-search", () => ({ NameSearch: require("./ui/combobox").Combobox }));
