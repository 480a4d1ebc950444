const patched = new WeakSet<Element>();

/**
 * The framework puts a scrollTo of its own on what scrolls, which does not know the page's `{ top }`; the keyboard would then neither scroll nor
 * move. Its own calls go on as before.
 */
export function letScroll(from: EventTarget | null): void {
  for (let at = from instanceof Element ? from.parentElement : null; at; at = at.parentElement) {
    if (at.scrollTo === Element.prototype.scrollTo || patched.has(at)) continue;
    patched.add(at);
    const element = at;
    const framework = at.scrollTo.bind(at) as (...args: unknown[]) => void;
    const plain = Element.prototype.scrollTo.bind(at) as (...args: unknown[]) => void;
    element.scrollTo = (...args: unknown[]): void => {
      const [first] = args;
      if (typeof first === "object" && first !== null && ("top" in first || "left" in first)) plain(...args);
      else framework(...args);
    };
  }
}
