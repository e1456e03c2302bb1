import { StyleSheet } from 'react-native';
import { Banner } from 'react-native-paper';
import { useOpenPiece } from '../../data/openPiece';
import { TOUCH } from '../../ui/tokens';
import { useTokens } from '../../ui/theme';

/** Says when work has not reached the server, and what became of it. Nothing is shown while all is well. */
export function SaveBanner() {
  const tokens = useTokens();
  const { saveState, piece, open } = useOpenPiece();
  if (saveState.kind === 'saved' || saveState.kind === 'waiting') return null;
  const kept = saveState.kind === 'conflict' ? saveState.keptAs : null;
  const theirs = {
    label: 'Open theirs',
    accessibilityLabel: 'Open the version saved elsewhere',
    contentStyle: styles.action,
    onPress: () => void (piece && open(piece.id)),
  };
  const mine = {
    label: 'Open mine',
    accessibilityLabel: 'Open your kept copy',
    contentStyle: styles.action,
    onPress: () => void (kept && open(kept)),
  };
  return (
    <Banner
      visible
      elevation={0}
      actions={[...(saveState.kind === 'conflict' && piece ? [theirs] : []), ...(kept ? [mine] : [])]}
      contentStyle={styles.content}
      style={[styles.banner, { backgroundColor: tokens.card, borderColor: tokens.danger }]}
    >
      {saveState.message}
    </Banner>
  );
}

const styles = StyleSheet.create({
  banner: { borderBottomWidth: 2 },
  content: { maxWidth: '100%' },
  action: { minHeight: TOUCH },
});
