import { HankenGrotesk_400Regular } from '@expo-google-fonts/hanken-grotesk/400Regular';
import { HankenGrotesk_600SemiBold } from '@expo-google-fonts/hanken-grotesk/600SemiBold';
import { Newsreader_400Regular_Italic } from '@expo-google-fonts/newsreader/400Regular_Italic';
import Feather from '@expo/vector-icons/Feather';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { useFonts } from 'expo-font';
import { Slot } from 'expo-router';
import { OpenGate, Plain } from '@/features/shell/OpenGate';
import { Shell } from '@/features/shell/Shell';
import { StudioProvider } from '@/features/studio/StudioProvider';
import { ThemeProvider } from '@/ui/theme';

const queries = new QueryClient({
  defaultOptions: { queries: { retry: 1, networkMode: 'always' }, mutations: { networkMode: 'always' } },
});

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
              <Slot />
            </Shell>
          </StudioProvider>
        </OpenGate>
      </ThemeProvider>
    </QueryClientProvider>
  );
}
