import { useEffect, useRef, useState, type ReactNode } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { TEMPLATES } from '../../core/piece/templates';
import { ApiProblem, listPieces, type PieceListing } from '../../data/api';
import { parseAddress } from '../../data/address';
import { Autosave } from '../../data/autosave';
import { useOpenPiece } from '../../data/openPiece';
import { Button } from '../../ui/Button';
import { Text } from '../../ui/Text';
import { ListItem } from '../../ui/ListItem';
import { useTokens } from '../../ui/theme';
import { lastOpened, openNewPiece, openPieceById } from '../studio/openPieceById';
import { UnreadablePiece } from '../shared/shell/UnreadablePiece';
import { reasonOf } from '../../core/reasonOf';

const DEMO = 'salt-pier';

/** The reason why a piece cannot be opened. */
type Obstacle =
  | { readonly kind: 'away'; readonly message: string }
  | { readonly kind: 'none' }
  | {
      readonly kind: 'unreadable';
      readonly piece: PieceListing;
      readonly problem: ApiProblem;
      readonly others: readonly PieceListing[];
    };

/** @returns null when a piece is open */
async function openLast(autosave: Autosave): Promise<Obstacle | null> {
  await autosave.sendEarlierWork();
  const pieces = await listPieces();
  const address = parseAddress(location.pathname);
  const addressed = address?.piece ?? null;
  const wanted = pieces.some(({ id }) => id === addressed) ? addressed : lastOpened();
  const piece = pieces.find(({ id }) => id === wanted) ?? pieces.find(({ id }) => id === DEMO) ?? pieces[0];
  if (!piece) return { kind: 'none' };
  try {
    await openPieceById(piece.id, addressed === piece.id ? (address ?? undefined) : undefined);
    return null;
  } catch (error) {
    if (!(error instanceof ApiProblem) || error.status !== 422) throw error;
    return { kind: 'unreadable', piece, problem: error, others: pieces.filter(({ id }) => id !== piece.id) };
  }
}

/** Opens the piece that was open last, else the demo; says so while it waits, and what can be done when it cannot. */
export function OpenGate({ children }: { readonly children: ReactNode }) {
  const open = useOpenPiece((state) => state.piece !== null);
  const [obstacle, setObstacle] = useState<Obstacle | null>(null);
  const [tries, setTries] = useState(0);
  const autosave = useRef<Promise<Autosave> | null>(null);
  useEffect(() => {
    const starting = Autosave.start();
    autosave.current = starting;
    return () => void starting.then((started) => started.end());
  }, []);
  useEffect(() => {
    let left = false;
    autosave.current
      ?.then(openLast)
      .catch((error: unknown): Obstacle => ({ kind: 'away', message: reasonOf(error) }))
      .then((found) => {
        if (!left) setObstacle(found);
      });
    return () => {
      left = true;
    };
  }, [tries]);
  if (open) return <>{children}</>;
  const again = (): void => {
    setObstacle(null);
    setTries(tries + 1);
  };
  return obstacle ? (
    <CannotOpen obstacle={obstacle} onAgain={again} />
  ) : (
    <Plain title="Zephiro" text="Opening the piece …" />
  );
}

function CannotOpen({ obstacle, onAgain }: { readonly obstacle: Obstacle; readonly onAgain: () => void }) {
  const [failed, setFailed] = useState<string | null>(null);
  const attempt = (act: Promise<void>): void => void act.catch((error: unknown) => setFailed(reasonOf(error)));
  if (obstacle.kind === 'away') {
    return (
      <Plain title="The piece could not be opened" text={obstacle.message}>
        <Button mode="contained" onPress={onAgain}>
          Try again
        </Button>
      </Plain>
    );
  }
  const others = obstacle.kind === 'unreadable' ? obstacle.others : [];
  return (
    <Plain
      title={obstacle.kind === 'unreadable' ? `“${obstacle.piece.name}” cannot be opened` : 'No piece is here'}
      text={obstacle.kind === 'unreadable' ? 'All other pieces are as they were.' : 'Begin with an empty one.'}
    >
      {obstacle.kind === 'unreadable' ? (
        <UnreadablePiece id={obstacle.piece.id} problem={obstacle.problem} open={(id) => openPieceById(id)} />
      ) : null}
      {failed ? (
        <Text role="alert" variant="bodySmall" tone="danger" style={styles.text}>
          {failed}
        </Text>
      ) : null}
      {others.length > 0 ? (
        <View role="group" aria-label="Other pieces" style={styles.others}>
          <Text variant="headlineSmall">Other pieces</Text>
          {others.map((piece) => (
            <ListItem
              key={piece.id}
              title={piece.name}
              note={`saved ${new Date(piece.updatedAt).toLocaleString()}`}
              label={`Open ${piece.name}`}
              style={styles.other}
              onPress={() => attempt(openPieceById(piece.id))}
            />
          ))}
        </View>
      ) : null}
      <Button icon="plus" onPress={() => attempt(openNewPiece(TEMPLATES[0]!))}>
        New piece
      </Button>
    </Plain>
  );
}

/** A whole screen with one thing to say. */
export function Plain({
  title,
  text,
  children,
}: {
  readonly title?: string;
  readonly text: string;
  readonly children?: ReactNode;
}) {
  const tokens = useTokens();
  return (
    <ScrollView style={{ backgroundColor: tokens.paper }} contentContainerStyle={styles.plain}>
      {title ? (
        <Text variant="headlineMedium" role="heading" aria-level={1} style={styles.text}>
          {title}
        </Text>
      ) : null}
      <Text role="status" style={styles.text}>
        {text}
      </Text>
      {children}
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  plain: { flexGrow: 1, alignItems: 'center', justifyContent: 'center', padding: 32, gap: 14 },
  text: { textAlign: 'center', maxWidth: 460 },
  others: { width: '100%', maxWidth: 460, gap: 4, marginTop: 10 },
  other: { alignItems: 'flex-start', paddingHorizontal: 0 },
});
