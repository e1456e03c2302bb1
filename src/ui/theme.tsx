import { createContext, useContext, useMemo, type ReactNode } from 'react';
import { useColorScheme, useWindowDimensions } from 'react-native';
import { PaperProvider } from 'react-native-paper';
import { create } from 'zustand';
import { paperIcon } from './icon';
import { useReducedMotion } from './motion';
import { paperTheme } from './paperTheme';
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

/** Colours, fonts and Paper's theme for all that is in it, by day or by night. */
export function ThemeProvider({ children }: { readonly children: ReactNode }) {
  const { choice } = useThemeChoice();
  const system = useColorScheme();
  const night = choice === 'night' || (choice === 'system' && system === 'dark');
  const tokens = night ? NIGHT : DAY;
  const still = useReducedMotion();
  const theme = useMemo(() => paperTheme(tokens, still), [tokens, still]);
  const settings = useMemo(() => ({ icon: paperIcon, rippleEffectEnabled: !still }), [still]);
  return (
    <TokensContext.Provider value={tokens}>
      <PaperProvider theme={theme} settings={settings}>
        {children}
      </PaperProvider>
    </TokensContext.Provider>
  );
}

export const useTokens = (): Tokens => useContext(TokensContext);

export const useWide = (): boolean => useWindowDimensions().width >= WIDE;
