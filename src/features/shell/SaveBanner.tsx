import { StyleSheet, View } from 'react-native';
import { useOpenPiece } from '../../data/openPiece';
import { Tap } from '../../ui/Tap';
import { useTokens } from '../../ui/theme';
import { Words } from '../../ui/Words';

/** Says when work has not reached the server, and what became of it. Nothing is shown while all is well. */
export function SaveBanner() {
  const tokens = useTokens();
  const { saveState, piece, open } = useOpenPiece();
  if (saveState.kind === 'saved' || saveState.kind === 'waiting') return null;
  const kept = saveState.kind === 'conflict' ? saveState.keptAs : null;
  return (
    <View role="alert" style={[styles.banner, { backgroundColor: tokens.card, borderColor: tokens.danger }]}>
      <Words kind="small" tone="ink" style={styles.text}>
        {saveState.message}
      </Words>
      {saveState.kind === 'conflict' && piece ? (
        <Tap label="Open the version saved elsewhere" text="Open theirs" onPress={() => void open(piece.id)} />
      ) : null}
      {kept ? <Tap label="Open your kept copy" text="Open mine" onPress={() => void open(kept)} /> : null}
    </View>
  );
}

const styles = StyleSheet.create({
  banner: {
    borderBottomWidth: 2,
    paddingHorizontal: 14,
    paddingVertical: 8,
    flexDirection: 'row',
    flexWrap: 'wrap',
    alignItems: 'center',
    gap: 8,
  },
  text: { flexGrow: 1, flexShrink: 1, flexBasis: 220 },
});
