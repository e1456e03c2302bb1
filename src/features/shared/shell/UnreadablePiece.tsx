import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { pieceDocumentUrl, recoverPiece, type ApiProblem } from '../../../data/api';
import { Button } from '../../../ui/Button';
import { Text } from '../../../ui/Text';
import { download } from '../../studio/download';
import { reasonOf } from '../../../core/reasonOf';

interface Props {
  readonly id: string;
  /** The server's answer. */
  readonly problem: ApiProblem;
  /** Opens a piece. */
  readonly open: (id: string) => Promise<void>;
}

/** A piece that cannot be read: the reason, and what can be recovered. */
export function UnreadablePiece({ id, problem, open }: Props) {
  const [busy, setBusy] = useState(false);
  const [failed, setFailed] = useState<string | null>(null);
  const recover = async (): Promise<void> => {
    setBusy(true);
    setFailed(null);
    try {
      await open(await recoverPiece(id));
    } catch (error) {
      setFailed(reasonOf(error));
    } finally {
      setBusy(false);
    }
  };
  const { lastGood } = problem;
  return (
    <View role="alert" style={styles.all}>
      <Text>{problem.detail}</Text>
      {lastGood ? (
        <Text variant="bodySmall">{`Its last state that can be read was saved ${new Date(lastGood).toLocaleString()}. It opens as a piece of its own.`}</Text>
      ) : (
        <Text variant="bodySmall">No earlier state of it can be read.</Text>
      )}
      {failed ? (
        <Text variant="bodySmall" tone="danger">
          {failed}
        </Text>
      ) : null}
      <View style={styles.row}>
        {lastGood ? (
          <Button mode="contained" disabled={busy} onPress={() => void recover()}>
            Open its last good state
          </Button>
        ) : null}
        <Button label="Download its file as it is" icon="download" onPress={() => download(pieceDocumentUrl(id))}>
          Its file as it is
        </Button>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  all: { gap: 10, width: '100%', maxWidth: 460, paddingTop: 6, paddingBottom: 12 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
});
