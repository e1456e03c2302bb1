import { useEffect, useState } from 'react';

/** The attribute of the control that is lit. */
const LIT = 'data-lit';
const WATCHED: MutationObserverInit = {
  childList: true,
  subtree: true,
  attributes: true,
  attributeFilter: ['aria-label', 'aria-checked'],
};

/**
 * Draws a line round the control that `target` gives, and follows it as the page changes.
 * @param colour of the line
 * @returns whether there is such a control in view
 */
export function useLight(target: () => Element | null, colour: string): boolean {
  const [found, setFound] = useState(false);
  useEffect(() => {
    const sheet = document.createElement('style');
    sheet.textContent = `[${LIT}] { outline: 3px solid ${colour} !important; outline-offset: -1px; }`;
    document.head.append(sheet);
    let lit: Element | null = null;
    let asked = 0;
    const light = (): void => {
      asked = 0;
      const next = target();
      setFound(next !== null);
      if (next === lit) return;
      lit?.removeAttribute(LIT);
      next?.setAttribute(LIT, '');
      lit = next;
    };
    const observer = new MutationObserver(() => (asked ||= requestAnimationFrame(light)));
    observer.observe(document.body, WATCHED);
    light();
    return () => {
      observer.disconnect();
      cancelAnimationFrame(asked);
      lit?.removeAttribute(LIT);
      sheet.remove();
    };
  }, [target, colour]);
  return found;
}
