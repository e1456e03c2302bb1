import { useEffect, useState, type ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { ApiProblem, listPieces } from '../../data/api';
import { sendKept, startAutosave } from '../../data/autosave';
import { useOpenPiece } from '../../data/openPiece';
import { useSession } from '../../data/session';
import { Tap } from '../../ui/Tap';
import { useTokens } from '../../ui/theme';
import { Words } from '../../ui/Words';

const DEMO = 'salt-pier';

async function openLast(): Promise<void> {
  await sendKept();
  const pieces = await listPieces();
  const wanted = localStorage.getItem('zephiro.open');
  const id = pieces.find((piece) => piece.id === wanted)?.id ?? pieces.find((piece) => piece.id === DEMO)?.id ?? pieces[0]?.id;
  if (!id) throw new ApiProblem(404, 'No piece is here', 'Start the server once with its demo, then try again.');
  await useOpenPiece.getState().open(id);
  const { piece } = useOpenPiece.getState();
  const { channel, set } = useSession.getState();
  if (!piece?.tracks.some((track) => track.id === channel)) set({ channel: piece?.tracks[0]?.id ?? 'main' });
}

/** Opens the piece that was open last, else the demo; says so while it waits and when it cannot. */
export function OpenGate({ children }: { readonly children: ReactNode }) {
  const open = useOpenPiece((state) => state.piece !== null);
  const [problem, setProblem] = useState<string | null>(null);
  const [tries, setTries] = useState(0);
  useEffect(() => startAutosave(), []);
  useEffect(() => {
    let left = false;
    openLast().catch((error: unknown) => {
      if (!left) setProblem(error instanceof Error ? error.message : String(error));
    });
    return () => {
      left = true;
    };
  }, [tries]);
  if (open) return <>{children}</>;
  return problem ? (
    <Plain title="The piece could not be opened" text={problem}>
      <Tap filled label="Try again" text="Try again" onPress={() => { setProblem(null); setTries(tries + 1); }} />
    </Plain>
  ) : (
    <Plain title="Zephiro" text="Opening the piece …" />
  );
}

/** A whole screen with one thing to say. */
export function Plain({ title, text, children }: { readonly title: string; readonly text: string; readonly children?: ReactNode }) {
  const tokens = useTokens();
  return (
    <View style={[styles.plain, { backgroundColor: tokens.paper }]}>
      <Words kind="waterBig" role="heading" aria-level={1}>{title}</Words>
      <Words role="status" style={styles.text}>{text}</Words>
      {children}
    </View>
  );
}

const styles = StyleSheet.create({
  plain: { flex: 1, alignItems: 'center', justifyContent: 'center', padding: 32, gap: 14 },
  text: { textAlign: 'center', maxWidth: 420 },
});
