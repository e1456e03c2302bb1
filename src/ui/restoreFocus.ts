/** Number of remembered elements: whatever a sheet removes, an earlier one still exists. */
const MOST = 12;
/** Elements that had the focus, the newest first. */
let recent: readonly HTMLElement[] = [];

globalThis.document?.addEventListener('focusin', ({ target }) => {
  if (target instanceof HTMLElement) recent = [target, ...recent.filter((one) => one !== target)].slice(0, MOST);
});

/** Gives the focus back to what had it last and is there still; does nothing where something has it. */
export function restoreFocus(): void {
  const { activeElement } = document;
  if (activeElement && activeElement !== document.body) return;
  recent.find((one) => one.isConnected && one.getClientRects().length > 0)?.focus({ preventScroll: true });
}
