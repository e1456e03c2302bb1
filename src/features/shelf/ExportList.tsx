import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { ProgressBar } from 'react-native-paper';
import type { ExportOrder, ExportStatus } from '../../core/files/order';
import { exportFileUrl, listExports, removeExport, startExport } from '../../data/api';
import { useOpenPiece } from '../../data/openPiece';
import { Tap } from '../../ui/Tap';
import { useTokens } from '../../ui/theme';
import { Words } from '../../ui/Words';
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
        <Words kind="water">Files</Words>
        <Tap
          icon="file-plus"
          label="Write files"
          text="Write files …"
          disabled={start.isPending}
          onPress={() => setChoosing(true)}
        />
      </View>
      {all.isError ? (
        <Words kind="small" tone="danger" role="alert">
          {all.error.message}
        </Words>
      ) : null}
      {all.data?.length === 0 ? (
        <Words kind="small">
          Nothing written yet: the whole piece, a file for each track, a stretch, or prints, as WAV or FLAC.
        </Words>
      ) : null}
      {all.data?.map((one) => (
        <Card key={one.id} one={one} onRemove={() => remove.mutate(one.id)} onAgain={() => start.mutate(one.order)} />
      ))}
      <ExportSheet visible={choosing} onClose={() => setChoosing(false)} onStart={(order) => start.mutate(order)} />
    </View>
  );
}

interface CardProps {
  readonly one: ExportStatus;
  readonly onRemove: () => void;
  readonly onAgain: () => void;
}

function Card({ one, onRemove, onAgain }: CardProps) {
  const tokens = useTokens();
  const title = `${WHAT[one.order.what]} · ${FORMAT_NAMES[one.order.format]}${one.order.lufs === null ? '' : ` · ${one.order.lufs} LUFS`.replace('-', '\u2212')}`;
  const broken = one.state === 'failed' || one.state === 'stopped';
  return (
    <View
      role="group"
      aria-label={`Export: ${title}`}
      style={[styles.card, { borderColor: tokens.line, backgroundColor: tokens.card }]}
    >
      <View style={styles.head}>
        <Words kind="strong" style={styles.title}>
          {title}
        </Words>
        <Tap
          plain
          icon={going(one) ? 'x' : 'trash-2'}
          tone="mute"
          label={going(one) ? 'Stop writing' : 'Put these files away'}
          onPress={onRemove}
        />
      </View>
      {going(one) ? (
        <>
          <View style={styles.progress}>
            <ProgressBar progress={one.share} color={tokens.sea} aria-label={`Writing ${title}`} />
          </View>
          <Words kind="small" role="status">
            {one.state === 'waiting' ? waitingText(one.ahead) : `writing … ${Math.round(one.share * 100)} %`}
          </Words>
        </>
      ) : null}
      {one.message ? (
        <Words kind="small" tone={broken ? 'danger' : 'mute'} role={broken ? 'alert' : 'status'}>
          {one.message}
        </Words>
      ) : null}
      {broken ? <Tap label="Write them again" text="Write again" onPress={onAgain} style={styles.again} /> : null}
      {one.files.map(({ name, bytes }) => (
        <Tap
          key={name}
          icon="download"
          label={`Download ${name}`}
          text={`${name} · ${sizeOf(bytes)}`}
          onPress={() => download(exportFileUrl(one.id, name))}
          style={styles.again}
        />
      ))}
    </View>
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
  card: { borderWidth: 1, borderRadius: 16, padding: 14, gap: 8 },
  progress: { height: 6, overflow: 'hidden' },
  again: { alignSelf: 'flex-start', maxWidth: '100%' },
});
