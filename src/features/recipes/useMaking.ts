import { useState } from 'react';

interface Making {
  readonly busy: boolean;
  /** What went wrong, for the person to read. */
  readonly trouble: string | null;
  refuse(message: string): void;
  /** Does something that takes a while; what it throws is said, with what was kept. */
  doing(act: () => Promise<void>): Promise<void>;
}

export function useMaking(): Making {
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const doing = async (act: () => Promise<void>): Promise<void> => {
    setBusy(true);
    setTrouble(null);
    try {
      await act();
    } catch (error) {
      setTrouble(`${error instanceof Error ? error.message : String(error)} Nothing was changed.`);
    }
    setBusy(false);
  };
  return { busy, trouble, refuse: setTrouble, doing };
}
