import { useEffect, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from '../../../ui/Text';
import { useTokens } from '../../../ui/theme';
import { useImports, type ImportTarget } from '../../studio/imports';

/** Finds the track and beat under a pointer; null where there is no track. */
export type FindTarget = (element: Element, clientX: number) => ImportTarget | null;

let findTarget: FindTarget = () => null;

/** Lets files be dropped onto tracks for as long as a view shows them. */
export function useDropTargets(find: FindTarget): void {
  useEffect(() => {
    findTarget = find;
    return () => {
      findTarget = () => null;
    };
  }, [find]);
}

const filesOf = (data: DataTransfer | null): File[] =>
  [...(data?.files ?? [])].filter(
    ({ type, name }) => type.startsWith('audio/') || /\.(wav|aiff?|flac|mp3|og[ga]|opus)$/i.test(name),
  );
const hasFiles = ({ dataTransfer }: DragEvent): boolean => dataTransfer?.types.includes('Files') ?? false;

/**
 * Takes sound files that are dropped anywhere, onto a track where one is under them, and files that are pasted. While
 * one is dragged in it says what will happen.
 */
export function FileDrop() {
  const tokens = useTokens();
  const [over, setOver] = useState<string | null>(null);
  useEffect(() => {
    const listening = new AbortController();
    const on = { signal: listening.signal };
    const under = ({ target, clientX }: DragEvent): ImportTarget | null =>
      target instanceof Element ? findTarget(target, clientX) : null;
    window.addEventListener(
      'dragover',
      (event) => {
        if (!hasFiles(event)) return;
        event.preventDefault();
        const target = under(event);
        setOver(target ? 'Let go: it begins here, on this track.' : 'Let go: each sound gets a track of its own.');
      },
      on,
    );
    window.addEventListener('dragleave', (event) => event.relatedTarget === null && setOver(null), on);
    window.addEventListener(
      'drop',
      (event) => {
        if (!hasFiles(event)) return;
        event.preventDefault();
        setOver(null);
        take(filesOf(event.dataTransfer), under(event));
      },
      on,
    );
    window.addEventListener(
      'paste',
      (event) => {
        const files = filesOf(event.clipboardData);
        if (files.length === 0) return;
        event.preventDefault();
        take(files, null);
      },
      on,
    );
    return () => listening.abort();
  }, []);
  if (!over) return null;
  return (
    <View style={styles.over}>
      <View role="status" style={[styles.words, { backgroundColor: tokens.card, borderColor: tokens.sea }]}>
        <Text>{over}</Text>
      </View>
    </View>
  );
}

function take(files: readonly File[], target: ImportTarget | null): void {
  if (files.length > 0) useImports.getState().add(files, target ?? undefined);
}

const styles = StyleSheet.create({
  over: { ...StyleSheet.absoluteFill, alignItems: 'center', justifyContent: 'flex-end', pointerEvents: 'none' },
  words: { marginBottom: 150, borderWidth: 2, borderRadius: 14, paddingHorizontal: 18, paddingVertical: 12 },
});
