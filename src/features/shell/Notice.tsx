import { useEffect } from 'react';
import { StyleSheet, View } from 'react-native';
import { useOpenPiece } from '../../data/openPiece';
import { Tap } from '../../ui/Tap';
import { useTokens } from '../../ui/theme';
import { Words } from '../../ui/Words';

const SHOWN_MS = 6000;

/** What just happened, in one line over the transport. */
export function Notice() {
  const tokens = useTokens();
  const { notice, say } = useOpenPiece();
  useEffect(() => {
    if (!notice) return undefined;
    const timer = setTimeout(() => say(null), SHOWN_MS);
    return () => clearTimeout(timer);
  }, [notice, say]);
  if (!notice) return null;
  return (
    <View role="status" style={[styles.notice, { backgroundColor: tokens.ink }]}>
      <Words kind="small" style={[styles.text, { color: tokens.paper }]}>
        {notice}
      </Words>
      <Tap plain icon="x" tone="paper" label="Put the message away" onPress={() => say(null)} />
    </View>
  );
}

const styles = StyleSheet.create({
  notice: {
    flexDirection: 'row',
    alignItems: 'center',
    marginHorizontal: 10,
    marginBottom: 6,
    borderRadius: 12,
    paddingLeft: 14,
    width: '95%',
    maxWidth: 640,
    alignSelf: 'center',
  },
  text: { flex: 1 },
});
