/** So many are kept: whatever a sheet may remove, one before it is there still. */
const MOST = 12;
/** What had the focus, the newest first. */
let trail: readonly HTMLElement[] = [];

globalThis.document?.addEventListener('focusin', ({ target }) => {
  if (target instanceof HTMLElement) trail = [target, ...trail.filter((one) => one !== target)].slice(0, MOST);
});

/** Gives the focus back to what had it last and is there still; nothing where something has it. */
export function focusLast(): void {
  const { activeElement } = document;
  if (activeElement && activeElement !== document.body) return;
  trail.find((one) => one.isConnected && one.getClientRects().length > 0)?.focus({ preventScroll: true });
}
