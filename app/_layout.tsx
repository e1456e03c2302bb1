import { HankenGrotesk_400Regular } from '@expo-google-fonts/hanken-grotesk/400Regular';
import { HankenGrotesk_600SemiBold } from '@expo-google-fonts/hanken-grotesk/600SemiBold';
import { Newsreader_400Regular_Italic } from '@expo-google-fonts/newsreader/400Regular_Italic';
import Feather from '@expo/vector-icons/Feather';
import { QueryClient, QueryClientProvider, queryOptions, useQuery } from '@tanstack/react-query';
import { useFonts } from 'expo-font';
import { Slot } from 'expo-router';
import { lazy, Suspense, useEffect, type ComponentType } from 'react';
import { VIEW_NAMES, type ViewName } from '@/data/address';
import { OpenGate, Plain } from '@/features/shell/OpenGate';
import { Shell } from '@/features/shell/Shell';
import { useAddress } from '@/features/shell/useAddress';
import { StudioProvider } from '@/features/studio/StudioProvider';
import { Button } from '@/ui/Button';
import { ThemeProvider } from '@/ui/theme';

const queries = new QueryClient({
  defaultOptions: { queries: { retry: 1, networkMode: 'always' }, mutations: { networkMode: 'always' } },
});

/** Beside the tracks, and only there: a phone does not fetch it with them. */
const ChannelPane = lazy(async () => ({ default: (await import('@/features/chain/ChainView')).ChannelPane }));

const VIEWS: Readonly<Record<ViewName, () => Promise<ComponentType>>> = {
  piece: async () => {
    const { PieceView } = await import('@/features/piece/PieceView');
    return function PieceWithChannel() {
      return (
        <PieceView
          side={
            <Suspense fallback={<Plain text="Opening …" />}>
              <ChannelPane />
            </Suspense>
          }
        />
      );
    };
  },
  chain: async () => (await import('@/features/chain/ChainView')).ChainView,
  moves: async () => (await import('@/features/moves/MovesView')).MovesView,
  play: async () => (await import('@/features/play/PlayView')).PlayView,
  shelf: async () => (await import('@/features/shelf/ShelfView')).ShelfView,
};

/** The code of a view, which is fetched once. */
const viewQuery = (name: ViewName) =>
  queryOptions({
    queryKey: ['view', name],
    queryFn: async () => ({ View: await VIEWS[name]() }),
    staleTime: Infinity,
    gcTime: Infinity,
    structuralSharing: false,
  });

/**
 * The view that the address names, fetched when it is opened first. The others are fetched after it, so that they open
 * while the server is away too.
 */
function AddressedView() {
  const address = useAddress();
  const view = useQuery(viewQuery(address?.view ?? 'piece'));
  useEffect(() => {
    if (view.isSuccess) for (const name of VIEW_NAMES) void queries.prefetchQuery(viewQuery(name));
  }, [view.isSuccess]);
  if (!address) return <Plain title="Nothing is here" text="No view has this address. Choose another." />;
  if (view.isError)
    return (
      <Plain title="This view could not be opened" text="The server is away. Your work is kept.">
        <Button mode="contained" onPress={() => void view.refetch()}>
          Try again
        </Button>
      </Plain>
    );
  return view.data ? <view.data.View /> : <Plain text="Opening …" />;
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
