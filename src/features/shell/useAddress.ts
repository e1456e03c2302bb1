import { usePathname } from 'expo-router';
import { useMemo } from 'react';
import { parseAddress, type Address } from '../../data/address';

/** Where the browser's address says that one is; null for one that leads nowhere. */
export function useAddress(): Address | null {
  const path = usePathname();
  return useMemo(() => parseAddress(path), [path]);
}
