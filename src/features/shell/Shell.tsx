import { Link } from 'expo-router';
import { useRef, type ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { Icon, TouchableRipple } from 'react-native-paper';
import type { IconName } from '../../ui/icon';
import { useFrame } from '../../ui/frame';
import { SkipLink } from '../../ui/SkipLink';
import { useRoleKeys } from '../../ui/roleKeys';
import { useTokens, useWide } from '../../ui/theme';
import { Text } from '../../ui/Text';
import { formatAddress, type ViewName } from '../../data/address';
import { useOpenPiece } from '../../data/openPiece';
import { useView } from '../../data/view';
import { useStudio } from '../studio/StudioProvider';
import { AddressSync } from './AddressSync';
import { useAddress } from './useAddress';
import { CommandKeys } from '../shared/commands/CommandKeys';
import { Controllers } from '../shared/controller/Controllers';
import { PrintStatus } from '../shared/sounds/PrintStatus';
import { FileDrop } from '../shared/sounds/FileDrop';
import { Guide } from './guide/Guide';
import { Notice } from './Notice';
import { SaveBanner } from './SaveBanner';
import { Transport } from './Transport';
import { Warnings } from './Warnings';
import { useRovingFocus } from '../../ui/rovingFocus';
import { Tooltip } from '../../ui/Tooltip';
import { lazySheet } from '../shared/shell/lazySheet';

/** Sheets of the whole interface, each fetched when it is opened first. */
const CommandSheet = lazySheet(async () => (await import('../shared/commands/CommandSheet')).CommandSheet);
const FilesSheet = lazySheet(async () => (await import('../shared/files/FilesSheet')).FilesSheet);
const SettingsSheet = lazySheet(async () => (await import('./settings/SettingsSheet')).SettingsSheet);
const HelpSheet = lazySheet(async () => (await import('./help/HelpSheet')).HelpSheet);

const LINKS: readonly { readonly view: ViewName; readonly label: string; readonly icon: IconName }[] = [
  { view: 'piece', label: 'Piece', icon: 'align-left' },
  { view: 'chain', label: 'Chain', icon: 'git-commit' },
  { view: 'moves', label: 'Moves', icon: 'activity' },
  { view: 'play', label: 'Play', icon: 'target' },
  { view: 'shelf', label: 'Shelf', icon: 'archive' },
];

/** Below the views on a wide screen. */
const SHEET_WAYS = [
  { sheet: 'help', label: 'Help for this view', words: 'Help', icon: 'help-circle' },
  { sheet: 'commands', label: 'All commands and keys', words: 'Commands', icon: 'command' },
  { sheet: 'settings', label: 'Settings', words: 'Settings', icon: 'settings' },
] as const;

const firstClip = (): HTMLElement | null =>
  document.querySelector<HTMLElement>('[data-testid^="lane of "] [role=button]');

/** The frame of every view: navigation, transport and messages. */
export function Shell({ children }: { readonly children: ReactNode }) {
  const tokens = useTokens();
  const wide = useWide();
  const locked = useView((view) => view.stage);
  // On a stage nothing reacts but Play, which has a bar of its own then.
  const view = useAddress()?.view;
  const stage = view === 'play' && locked;
  const { studio } = useStudio();
  useFrame(() => {
    studio.watch();
    return studio.player.active;
  });
  useRoleKeys();
  return (
    <View style={[styles.shell, { backgroundColor: tokens.paper }]}>
      <AddressSync />
      <Tooltip />
      {view === 'piece' ? <SkipLink to={firstClip}>Skip to the first clip</SkipLink> : null}
      {stage ? null : <CommandKeys />}
      {stage ? null : <OpenedSheet />}
      <Controllers />
      {stage ? null : <FileDrop />}
      <SaveBanner />
      <View style={[styles.middle, wide && styles.middleWide]}>
        {wide && !stage ? <ViewLinks wide /> : null}
        <View role="main" style={styles.view}>
          {children}
        </View>
      </View>
      <View>
        <Warnings />
        {stage || view === 'shelf' || view === 'play' ? null : <PrintStatus />}
        <Notice />
        {stage ? null : <Guide />}
        {stage ? null : <Transport />}
      </View>
      {wide || stage ? null : <ViewLinks wide={false} />}
    </View>
  );
}

function OpenedSheet() {
  const sheet = useView((view) => view.sheet);
  return (
    <>
      {sheet === 'commands' ? <CommandSheet /> : null}
      {sheet === 'files' ? <FilesSheet /> : null}
      {sheet === 'settings' ? <SettingsSheet /> : null}
      {sheet === 'help' ? <HelpSheet /> : null}
    </>
  );
}

function ViewLinks({ wide }: { readonly wide: boolean }) {
  const tokens = useTokens();
  const address = useAddress();
  const piece = useOpenPiece((state) => state.piece?.id ?? null);
  const channel = useView((view) => view.channel);
  const slot = useView((view) => view.slot);
  const group = useRef<View>(null);
  useRovingFocus(group, { first: '[aria-current=page]' });
  return (
    <View
      ref={group}
      role="navigation"
      aria-label="Views"
      style={[wide ? styles.rail : styles.bar, { backgroundColor: tokens.card, borderColor: tokens.line }]}
    >
      {LINKS.map(({ view, label, icon }) => {
        const here = address?.view === view;
        const where = view === 'chain' ? { channel, slot } : { channel: view === 'moves' ? channel : null, slot: null };
        return (
          <Link key={label} href={formatAddress({ piece, view, ...where })} asChild>
            <TouchableRipple
              role="link"
              aria-label={label}
              aria-current={here ? 'page' : undefined}
              style={wide ? styles.wayWide : styles.way}
            >
              <>
                <Icon source={icon} size={20} color={here ? tokens.sea : tokens.mute} />
                <Text variant={here ? 'titleSmall' : 'bodyMedium'} tone={here ? 'ink' : 'mute'} style={styles.wayText}>
                  {label}
                </Text>
              </>
            </TouchableRipple>
          </Link>
        );
      })}
      {wide ? (
        <>
          <View style={styles.gap} />
          {SHEET_WAYS.map(({ sheet, label, words, icon }) => (
            <TouchableRipple
              key={sheet}
              role="button"
              aria-label={label}
              style={styles.wayWide}
              onPress={() => useView.setState({ sheet })}
            >
              <>
                <Icon source={icon} size={20} color={tokens.mute} />
                <Text variant="bodyMedium" tone="mute" style={styles.wayText}>
                  {words}
                </Text>
              </>
            </TouchableRipple>
          ))}
        </>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  shell: { flex: 1, minHeight: 0, overflow: 'hidden' },
  middle: { flex: 1, minHeight: 0 },
  middleWide: { flexDirection: 'row' },
  view: { flex: 1, minHeight: 0, minWidth: 0 },
  bar: { flexDirection: 'row', borderTopWidth: 1, height: 58 },
  rail: { width: 84, borderRightWidth: 1, paddingVertical: 14, gap: 6 },
  gap: { flex: 1 },
  way: { flex: 1, alignItems: 'center', justifyContent: 'center', gap: 2 },
  wayWide: { minHeight: 58, alignItems: 'center', justifyContent: 'center', gap: 2 },
  wayText: { fontSize: 13, lineHeight: 17 },
});
