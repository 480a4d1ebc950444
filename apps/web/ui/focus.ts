/** Puts the focus where it belongs after something was removed or closed, as soon as the screen has been drawn. */
export function focusSoon(selector: string): void {
  requestAnimationFrame(() => {
    const found = [...document.querySelectorAll<HTMLElement>(selector)].find((element) => element.offsetParent !== null);
    found?.focus();
  });
}
