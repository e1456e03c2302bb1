import { useEffect } from 'react';

/**
 * Roles whose elements answer to Space but are no buttons to React Native's press handling, which gives them Enter
 * only.
 */
const SPACED = new Set(['radio', 'switch', 'tab', 'menuitem']);
/** Groups in which arrow keys go from one to the next and choose it. */
const GROUPS: Readonly<Record<string, string>> = { radio: 'radiogroup', tab: 'tablist' };
const STEPS: Readonly<Record<string, number>> = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 };

/**
 * The keys that ARIA expects of radios, switches and tabs, for the whole page. Source: W3C, "ARIA Authoring Practices
 * Guide" (2023).
 */
export function useRoleKeys(): void {
  useEffect(() => {
    const press = (event: KeyboardEvent): void => {
      if (!(event.target instanceof HTMLElement) || event.ctrlKey || event.metaKey || event.altKey) return;
      const role = event.target.getAttribute('role') ?? '';
      if (event.key === ' ' && SPACED.has(role)) event.target.click();
      else if (!stepped(event.target, role, STEPS[event.key])) return;
      event.preventDefault();
      event.stopPropagation();
    };
    document.addEventListener('keydown', press, true);
    return () => document.removeEventListener('keydown', press, true);
  }, []);
}

function stepped(from: HTMLElement, role: string, step: number | undefined): boolean {
  const group = GROUPS[role] ? from.closest(`[role=${GROUPS[role]}]`) : null;
  if (!group || step === undefined) return false;
  const all = [...group.querySelectorAll<HTMLElement>(`[role=${role}]`)];
  const next = all[(all.indexOf(from) + step + all.length) % all.length];
  next?.focus();
  next?.click();
  return true;
}
