import { useState, type ReactNode } from 'react';
import { StyleSheet, View, type LayoutChangeEvent } from 'react-native';
import { MONO_BANDS, type AnalysisReport } from '../../../core/analysis/analysisReport';
import { formatDb } from '../../../core/params/format';
import { IconButton } from '../../../ui/IconButton';
import { Text } from '../../../ui/Text';
import { useTokens } from '../../../ui/theme';
import { MonitorChoice } from '../../shared/shell/MonitorChoice';
import { Goniometer } from './Goniometer';
import { SpectrumChart } from './SpectrumChart';
import { useChannelAnalysis } from './useChannelAnalysis';
import { WavePair } from './WavePair';

const TWO_COLUMNS = 620;

/** Meters of a channel while it plays: what enters its effects in sand, what leaves them in sea. */
export function MeteringPanel({ channel, name }: { readonly channel: string; readonly name: string }) {
  const { report, clear } = useChannelAnalysis(channel);
  const [width, setWidth] = useState(0);
  const two = width >= TWO_COLUMNS;
  const inner = two ? (width - 24) / 2 : width;
  return (
    <View
      role="group"
      aria-label={`Meters of ${name}`}
      style={styles.panel}
      onLayout={(event: LayoutChangeEvent) => setWidth(event.nativeEvent.layout.width)}
    >
      <MonitorChoice />
      {width === 0 || !report ? (
        <Text variant="bodySmall">Listening …</Text>
      ) : (
        <View style={[styles.parts, two && styles.two]}>
          <View style={{ width: inner }}>
            <Section title="Before and after">
              <WavePair before={report.waveBefore} after={report.waveAfter} width={inner} height={two ? 130 : 76} />
            </Section>
            <Section title="Spectrum">
              <SpectrumChart before={report.before} after={report.after} width={inner} height={two ? 260 : 132} />
              <LowMid db={report.lowMidDb} />
            </Section>
          </View>
          <View style={{ width: inner }}>
            <Section
              title="Loudness"
              tools={<IconButton icon="rotate-ccw" label="Count loudness anew" tone="mute" onPress={clear} />}
            >
              <Loudness report={report} />
            </Section>
            <Section title="Stereo image">
              <View style={[styles.image, two && styles.imageTall]}>
                <Goniometer pairs={report.pairs} correlation={report.correlation} size={two ? 210 : 132} />
                <MonoLoss loss={report.monoLossDb} />
              </View>
            </Section>
          </View>
        </View>
      )}
    </View>
  );
}

function Section({
  title,
  tools,
  children,
}: {
  readonly title: string;
  readonly tools?: ReactNode;
  readonly children: ReactNode;
}) {
  return (
    <View style={styles.section}>
      <View style={styles.head}>
        <Text variant="headlineSmall" role="heading" aria-level={3} style={styles.title}>
          {title}
        </Text>
        {tools}
      </View>
      {children}
    </View>
  );
}

const say = (level: number): string => (level < -99 ? '−∞' : level.toFixed(1).replace('-', '−'));

function Loudness({ report }: { readonly report: AnalysisReport }) {
  const tokens = useTokens();
  const figures = [
    ['now', report.momentary, 'LUFS'],
    ['3 seconds', report.shortTerm, 'LUFS'],
    ['since start', report.integrated, 'LUFS'],
    ['true peak', report.truePeakDb, 'dBTP'],
  ] as const;
  return (
    <View style={styles.figures}>
      {figures.map(([what, level, unit]) => (
        <View key={what} style={styles.figure}>
          <Text variant="bodySmall">{what}</Text>
          <Text
            variant="titleSmall"
            aria-label={`${what} ${say(level)} ${unit}`}
            style={{ color: unit === 'dBTP' && level > 0 ? tokens.danger : tokens.ink }}
          >
            {say(level)}
          </Text>
          <Text variant="bodySmall">{unit === 'dBTP' && level > 0 ? 'over full scale' : unit}</Text>
        </View>
      ))}
    </View>
  );
}

/** Rise of the low mids over that of the whole, also in words. */
function LowMid({ db }: { readonly db: number | null }) {
  const said =
    db === null
      ? 'no sound yet'
      : db > 3
        ? 'mud is building up: cut the lows of the wet sound'
        : db > 1
          ? 'a little fuller than before'
          : db < -1
            ? 'leaner than before'
            : 'as before';
  return (
    <View style={styles.lowMid}>
      <Text variant="bodySmall">Low mids, 150–500 Hz</Text>
      <Text
        variant="titleSmall"
        aria-label={`Low-mid build-up ${db === null ? 'unknown' : formatDb(db)}`}
        tone={db !== null && db > 3 ? 'danger' : 'ink'}
      >
        {db === null ? '–' : formatDb(db)}
      </Text>
      <Text variant="bodySmall" style={styles.said}>
        {said}
      </Text>
    </View>
  );
}

/** Loss of each band in mono: the fuller the bar, the more is left. */
function MonoLoss({ loss }: { readonly loss: readonly number[] }) {
  const tokens = useTokens();
  return (
    <View role="group" aria-label="Loss in mono by band" style={styles.bands}>
      <Text variant="bodySmall">left in mono</Text>
      {MONO_BANDS.map(({ name }, i) => {
        const db = loss[i]!;
        return (
          <View key={name} style={styles.band}>
            <Text variant="bodySmall" style={styles.bandName}>
              {name}
            </Text>
            <View style={[styles.rail, { backgroundColor: tokens.line }]}>
              <View
                style={[
                  styles.left,
                  {
                    backgroundColor: db < -3 ? tokens.danger : tokens.sea,
                    width: `${Math.max(0, 100 + (db / 24) * 100)}%`,
                  },
                ]}
              />
            </View>
            <Text
              variant="bodySmall"
              tone={db < -3 ? 'danger' : 'ink'}
              aria-label={`${name} ${formatDb(db)}`}
              style={styles.bandDb}
            >
              {formatDb(db)}
            </Text>
          </View>
        );
      })}
    </View>
  );
}

const styles = StyleSheet.create({
  panel: { minHeight: 120 },
  parts: { gap: 8 },
  two: { flexDirection: 'row', gap: 24 },
  section: { marginBottom: 12 },
  head: { flexDirection: 'row', alignItems: 'center', minHeight: 44 },
  title: { flex: 1 },
  figures: { flexDirection: 'row', flexWrap: 'wrap' },
  figure: { width: '25%', minWidth: 78 },
  lowMid: { flexDirection: 'row', alignItems: 'baseline', gap: 8, flexWrap: 'wrap', marginTop: 6 },
  said: { flexShrink: 1 },
  image: { flexDirection: 'row', gap: 16, alignItems: 'center' },
  imageTall: { minHeight: 240 },
  bands: { flex: 1, gap: 7, minWidth: 0 },
  band: { flexDirection: 'row', alignItems: 'center', gap: 6 },
  bandName: { width: 58 },
  bandDb: { width: 58, textAlign: 'right' },
  rail: { flex: 1, height: 6, borderRadius: 3, overflow: 'hidden' },
  left: { height: 6, borderRadius: 3 },
});
