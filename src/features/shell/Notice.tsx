import { StyleSheet } from 'react-native';
import { Snackbar } from 'react-native-paper';
import { TOUCH } from '../../ui/tokens';
import { useOpenPiece } from '../../data/openPiece';

const SHOWN_MS = 6000;

/** What just happened, in one line over the transport. */
export function Notice() {
  const { notice, noticeAction, say } = useOpenPiece();
  if (!notice) return null;
  const action = noticeAction ?? { label: 'close', spoken: 'Put the message away', act: () => undefined };
  return (
    // A message that follows another is shown for its whole time.
    <Snackbar
      key={notice}
      visible
      // A message is read at once, not while it fades in.
      theme={{ animation: { scale: 0 } }}
      role="status"
      duration={SHOWN_MS}
      onDismiss={() => say(null)}
      action={{
        label: action.label,
        accessibilityLabel: action.spoken ?? action.label,
        contentStyle: styles.close,
        onPress: () => {
          say(null);
          action.act();
        },
      }}
      elevation={0}
      wrapperStyle={styles.place}
      style={styles.notice}
    >
      {notice}
    </Snackbar>
  );
}

const styles = StyleSheet.create({
  place: { position: 'relative', alignSelf: 'center', width: '95%', maxWidth: 640 },
  notice: { borderRadius: 12, margin: 0, marginBottom: 6 },
  close: { minHeight: TOUCH },
});
