import { useState } from 'react';
import { useTokens } from './theme';
import { FONT_STRONG, TOUCH } from './tokens';

interface SkipLinkProps {
  readonly children: string;
  /** Finds what the focus goes to; nothing happens where there is none. */
  readonly to: () => HTMLElement | null;
}

/** The first stop of the Tab key: leads past everything that is on every view. In sight only while it has the focus. */
export function SkipLink({ children, to }: SkipLinkProps) {
  const tokens = useTokens();
  const [focused, setFocused] = useState(false);
  return (
    <button
      type="button"
      onFocus={() => setFocused(true)}
      onBlur={() => setFocused(false)}
      onClick={() => to()?.focus()}
      style={{
        position: 'absolute',
        left: 8,
        top: focused ? 8 : -2 * TOUCH,
        zIndex: 2,
        minHeight: TOUCH,
        padding: '0 16px',
        borderRadius: 12,
        border: `2px solid ${tokens.sea}`,
        background: tokens.card,
        color: tokens.ink,
        fontFamily: FONT_STRONG,
        fontSize: 15,
      }}
    >
      {children}
    </button>
  );
}
