import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Card, ProgressBar } from 'react-native-paper';
import type { ExportOrder, ExportStatus } from '../../core/files/order';
import { exportFileUrl, listExports, removeExport, startExport } from '../../data/api';
import { useOpenPiece } from '../../data/openPiece';
import { Button } from '../../ui/Button';
import { IconButton } from '../../ui/IconButton';
import { Text } from '../../ui/Text';
import { useTokens } from '../../ui/theme';
import { download } from '../studio/download';
import { usePiece } from '../studio/StudioProvider';
import { ExportSheet, FORMAT_NAMES } from './ExportSheet';

const LOOK_MS = 400;
const WHAT = { mix: 'the piece', stems: 'a file for each track', prints: 'prints' } as const;
const going = ({ state }: ExportStatus): boolean => state === 'waiting' || state === 'running';

/**
 * Files written from this piece, and those on their way; the server writes them, so a reload of the page stops nothing.
 */
export function ExportList() {
  const piece = usePiece();
  const queries = useQueryClient();
  const [choosing, setChoosing] = useState(false);
  const key = ['exports', piece.id];
  const all = useQuery({
    queryKey: key,
    queryFn: () => listExports(piece.id),
    refetchInterval: ({ state }) => (state.data?.some(going) ? LOOK_MS : false),
  });
  const again = (): Promise<void> => queries.invalidateQueries({ queryKey: key });
  const say = (error: Error): void => useOpenPiece.getState().say(error.message);
  const start = useMutation({
    mutationFn: async (order: ExportOrder) => {
      // What is written is what the server has: a change of this moment goes there first.
      await useOpenPiece.getState().saved();
      await startExport(order);
    },
    onSuccess: again,
    onError: say,
  });
  const remove = useMutation({ mutationFn: removeExport, onSuccess: again, onError: say });
  return (
    <View style={styles.list}>
      <View style={styles.head}>
        <Text variant="headlineSmall">Files</Text>
        <Button label="Write files" icon="file-plus" disabled={start.isPending} onPress={() => setChoosing(true)}>
          Write files …
        </Button>
      </View>
      {all.isError ? (
        <Text variant="bodySmall" tone="danger" role="alert">
          {all.error.message}
        </Text>
      ) : null}
      {all.data?.length === 0 ? (
        <Text variant="bodySmall">
          Nothing written yet: the whole piece, a file for each track, a stretch, or prints, as WAV or FLAC.
        </Text>
      ) : null}
      {all.data?.map((one) => (
        <ExportCard
          key={one.id}
          one={one}
          onRemove={() => remove.mutate(one.id)}
          onAgain={() => start.mutate(one.order)}
        />
      ))}
      <ExportSheet visible={choosing} onClose={() => setChoosing(false)} onStart={(order) => start.mutate(order)} />
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
  const title = `${WHAT[one.order.what]} · ${FORMAT_NAMES[one.order.format]}${one.order.lufs === null ? '' : ` · ${one.order.lufs} LUFS`.replace('-', '\u2212')}`;
  const broken = one.state === 'failed' || one.state === 'stopped';
  return (
    <Card role="group" aria-label={`Export: ${title}`} mode="outlined" style={styles.card} contentStyle={styles.within}>
      <View style={styles.head}>
        <Text variant="titleSmall" style={styles.title}>
          {title}
        </Text>
        <IconButton
          icon={going(one) ? 'x' : 'trash-2'}
          label={going(one) ? 'Stop writing' : 'Put these files away'}
          tone="mute"
          onPress={onRemove}
        />
      </View>
      {going(one) ? (
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
      {one.files.map(({ name, bytes }) => (
        <Button
          key={name}
          label={`Download ${name}`}
          icon="download"
          style={styles.again}
          onPress={() => download(exportFileUrl(one.id, name))}
        >{`${name} · ${sizeOf(bytes)}`}</Button>
      ))}
    </Card>
  );
}

const sizeOf = (bytes: number): string =>
  bytes < 1e6
    ? `${Math.round(bytes / 1000)} kB`
    : bytes < 1e9
      ? `${(bytes / 1e6).toFixed(1)} MB`
      : `${(bytes / 1e9).toFixed(2)} GB`;

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
