import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { StyleSheet, View } from 'react-native';
import { Card, ProgressBar } from 'react-native-paper';
import type { ExportOrder, ExportStatus } from '../../../core/files/order';
import { exportArchiveUrl, exportFileUrl, listExports, removeExport, startExport } from '../../../data/api';
import { useOpenPiece } from '../../../data/openPiece';
import { useView } from '../../../data/view';
import { Button } from '../../../ui/Button';
import { IconButton } from '../../../ui/IconButton';
import { sizeText } from '../../../ui/sizeText';
import { Text } from '../../../ui/Text';
import { useTokens } from '../../../ui/theme';
import { download } from '../../studio/download';
import { usePiece } from '../../studio/StudioProvider';
import { exportTime, exportTitle } from './exportText';

const LOOK_MS = 400;
const isGoing = ({ state }: ExportStatus): boolean => state === 'waiting' || state === 'running';

/** Files written from this piece, and those on their way: the server writes them, so a reload of the page stops nothing. */
export function useExports() {
  const { id } = usePiece();
  const queries = useQueryClient();
  const queryKey = ['exports', id];
  const list = useQuery({
    queryKey,
    queryFn: () => listExports(id),
    refetchInterval: ({ state }) => (state.data?.some(isGoing) ? LOOK_MS : false),
  });
  const onSuccess = (): Promise<void> => queries.invalidateQueries({ queryKey });
  const onError = (error: Error): void => useOpenPiece.getState().say(error.message);
  const start = useMutation({
    mutationFn: async (order: ExportOrder) => {
      // Files are written by the server: pending changes are saved first.
      await useOpenPiece.getState().saved();
      await startExport(order);
    },
    onSuccess,
    onError,
  });
  const remove = useMutation({ mutationFn: removeExport, onSuccess, onError });
  return { list, start, remove };
}

type Exports = ReturnType<typeof useExports>;

/** Those files as cards: what each is, how far it is, and its downloads. */
export function ExportCards({ list, start, remove }: Exports) {
  return (
    <>
      {list.isError ? (
        <Text variant="bodySmall" tone="danger" role="alert">
          {list.error.message}
        </Text>
      ) : null}
      {list.data?.length === 0 ? (
        <Text variant="bodySmall">
          Nothing written yet: the whole piece, a file for each track, a stretch, or prints, as WAV or FLAC.
        </Text>
      ) : null}
      {list.data?.map((one) => (
        <ExportCard
          key={one.id}
          one={one}
          onRemove={() => remove.mutate(one.id)}
          onAgain={() => start.mutate(one.order)}
        />
      ))}
    </>
  );
}

/** On the Shelf: all files of the piece. */
export function ExportList() {
  const exports = useExports();
  return (
    <View style={styles.list}>
      <View style={styles.head}>
        <Text variant="headlineSmall">Files</Text>
        <Button label="Write files" icon="file-plus" onPress={() => useView.setState({ sheet: 'files' })}>
          Write files …
        </Button>
      </View>
      <ExportCards {...exports} />
    </View>
  );
}

interface ExportCardProps {
  readonly one: ExportStatus;
  readonly onRemove: () => void;
  readonly onAgain: () => void;
}

function ExportCard({ one, onRemove, onAgain }: ExportCardProps) {
  const tokens = useTokens();
  const title = exportTitle(usePiece(), one.order);
  const broken = one.state === 'failed' || one.state === 'stopped';
  return (
    <Card role="group" aria-label={`Export: ${title}`} mode="outlined" style={styles.card} contentStyle={styles.within}>
      <View style={styles.head}>
        <View style={styles.title}>
          <Text variant="titleSmall">{title}</Text>
          <Text variant="bodySmall">{exportTime(one)}</Text>
        </View>
        <IconButton
          icon={isGoing(one) ? 'x' : 'trash-2'}
          label={isGoing(one) ? 'Stop writing' : 'Put these files away'}
          tone="mute"
          onPress={onRemove}
        />
      </View>
      {isGoing(one) ? (
        <>
          <View style={styles.progress}>
            <ProgressBar progress={one.share} color={tokens.sea} aria-label={`Writing ${title}`} />
          </View>
          <Text variant="bodySmall" role="status">
            {one.state === 'waiting' ? waitingText(one.ahead) : `writing … ${Math.round(one.share * 100)} %`}
          </Text>
        </>
      ) : null}
      {one.message ? (
        <Text variant="bodySmall" tone={broken ? 'danger' : 'mute'} role={broken ? 'alert' : 'status'}>
          {one.message}
        </Text>
      ) : null}
      {broken ? (
        <Button label="Write them again" style={styles.again} onPress={onAgain}>
          Write again
        </Button>
      ) : null}
      {one.files.length > 1 ? (
        <Button
          label="Download all files in one"
          icon="download"
          mode="contained"
          tone="sea"
          style={styles.again}
          onPress={() => download(exportArchiveUrl(one.id))}
        >{`All ${one.files.length} in one · ${sizeText(one.files.reduce((sum, { bytes }) => sum + bytes, 0))}`}</Button>
      ) : null}
      {one.files.map(({ name, bytes }) => (
        <Button
          key={name}
          label={`Download ${name}`}
          icon="download"
          style={styles.again}
          onPress={() => download(exportFileUrl(one.id, name))}
        >{`${name} · ${sizeText(bytes)}`}</Button>
      ))}
    </Card>
  );
}

const waitingText = (ahead: number): string =>
  ahead === 0 ? 'waiting …' : `waiting: ${ahead} ${ahead === 1 ? 'file is' : 'files are'} written before it`;

const styles = StyleSheet.create({
  list: { gap: 12, marginTop: 8 },
  head: { flexDirection: 'row', alignItems: 'center', justifyContent: 'space-between', gap: 8 },
  title: { flex: 1 },
  card: { borderRadius: 16 },
  within: { padding: 14, gap: 8 },
  progress: { height: 6, overflow: 'hidden' },
  again: { alignSelf: 'flex-start', maxWidth: '100%' },
});
