import { createContext, useContext, type ReactNode } from 'react';
import { useColorScheme, useWindowDimensions } from 'react-native';
import { create } from 'zustand';
import { DAY, NIGHT, WIDE, type Tokens } from './tokens';

export type ThemeChoice = 'day' | 'night' | 'system';
const KEPT = 'zephiro.theme';

function keptChoice(): ThemeChoice {
  const kept = typeof localStorage === 'undefined' ? null : localStorage.getItem(KEPT);
  return kept === 'day' || kept === 'night' ? kept : 'system';
}

export const useThemeChoice = create<{ choice: ThemeChoice; choose(choice: ThemeChoice): void }>((set) => ({
  choice: keptChoice(),
  choose: (choice) => {
    localStorage.setItem(KEPT, choice);
    set({ choice });
  },
}));

const TokensContext = createContext<Tokens>(DAY);

export function ThemeProvider({ children }: { readonly children: ReactNode }) {
  const { choice } = useThemeChoice();
  const system = useColorScheme();
  const night = choice === 'night' || (choice === 'system' && system === 'dark');
  return <TokensContext.Provider value={night ? NIGHT : DAY}>{children}</TokensContext.Provider>;
}

export const useTokens = (): Tokens => useContext(TokensContext);

export const useWide = (): boolean => useWindowDimensions().width >= WIDE;
