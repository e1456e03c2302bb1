import { HankenGrotesk_400Regular } from '@expo-google-fonts/hanken-grotesk/400Regular';
import { HankenGrotesk_600SemiBold } from '@expo-google-fonts/hanken-grotesk/600SemiBold';
import { Newsreader_400Regular_Italic } from '@expo-google-fonts/newsreader/400Regular_Italic';
import Feather from '@expo/vector-icons/Feather';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { useFonts } from 'expo-font';
import { Slot } from 'expo-router';
import { lazy, Suspense, type ComponentType } from 'react';
import type { View } from '@/data/address';
import { OpenGate, Plain } from '@/features/shell/OpenGate';
import { Shell } from '@/features/shell/Shell';
import { useAddress } from '@/features/shell/useAddress';
import { StudioProvider } from '@/features/studio/StudioProvider';
import { ThemeProvider } from '@/ui/theme';

const queries = new QueryClient({
  defaultOptions: { queries: { retry: 1, networkMode: 'always' }, mutations: { networkMode: 'always' } },
});

/** Each view is loaded when it is opened first. */
const VIEWS: Readonly<Record<View, ComponentType>> = {
  piece: lazy(async () => ({ default: (await import('@/features/piece/PieceView')).PieceView })),
  chain: lazy(async () => ({ default: (await import('@/features/chain/ChainView')).ChainView })),
  moves: lazy(async () => ({ default: (await import('@/features/moves/MovesView')).MovesView })),
  shelf: lazy(async () => ({ default: (await import('@/features/shelf/ShelfView')).ShelfView })),
};

/** The view that the address names. It stays as it is while only what it shows changes. */
function AddressedView() {
  const address = useAddress();
  if (!address) return <Plain title="Nothing is here" text="No view has this address. Choose one below." />;
  const Chosen = VIEWS[address.view];
  return (
    <Suspense fallback={<Plain title="" text="Opening …" />}>
      <Chosen />
    </Suspense>
  );
}

export default function Layout() {
  const [loaded, failed] = useFonts({
    HankenGrotesk_400Regular,
    HankenGrotesk_600SemiBold,
    Newsreader_400Regular_Italic,
    ...Feather.font,
  });
  if (!loaded && !failed) return null;
  return (
    <QueryClientProvider client={queries}>
      <ThemeProvider>
        <OpenGate>
          <StudioProvider without={(reason) => <Plain title="No sound in this browser" text={reason} />}>
            <Shell>
              <AddressedView />
            </Shell>
          </StudioProvider>
        </OpenGate>
        <Slot />
      </ThemeProvider>
    </QueryClientProvider>
  );
}
