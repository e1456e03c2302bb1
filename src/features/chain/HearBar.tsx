import { useEffect, useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import { formatDb } from '../../core/params/format';
import type { Hear } from '../../core/engine/slot';
import { useSession } from '../../data/session';
import { elementOf } from '../../ui/frame';
import { LiveText } from '../../ui/LiveText';
import { useKeys } from '../../ui/pointer';
import { Tap } from '../../ui/Tap';
import { useTokens } from '../../ui/theme';
import { TOUCH } from '../../ui/tokens';
import { Words } from '../../ui/Words';
import { useStudio } from '../studio/StudioProvider';

const CHOICES: readonly { readonly id: Hear; readonly label: string }[] = [
  { id: 'mix', label: 'mix' },
  { id: 'wet', label: 'wet' },
  { id: 'dry', label: 'dry' },
  { id: 'difference', label: 'change' },
];

/** What of an effect is heard, the untreated sound for as long as it is held, and loudness matching with the gain it took. */
export function HearBar({ channel, slot }: { readonly channel: string; readonly slot: string }) {
  const { studio } = useStudio();
  const tokens = useTokens();
  const { hear, comparing, matched, set } = useSession();
  useEffect(() => {
    studio.listen({ channel, slot, hear: comparing ? 'dry' : hear, matched });
  }, [studio, channel, slot, hear, comparing, matched]);
  useEffect(
    () => () => {
      useSession.getState().set({ hear: 'mix', comparing: false, matched: false });
      studio.listen({ channel, slot, hear: 'mix', matched: false });
    },
    [studio, channel, slot],
  );
  return (
    <View style={[styles.bar, { borderColor: tokens.line, backgroundColor: tokens.paper }]}>
      <View style={styles.row}>
        <View role="radiogroup" aria-label="Hear" style={[styles.group, { borderColor: tokens.line }]}>
          {CHOICES.map((choice) => (
            <Tap key={choice.id} plain role="radio" label={`Hear ${choice.label}`} chosen={hear === choice.id} onPress={() => set({ hear: choice.id })} style={[styles.choice, hear === choice.id && { backgroundColor: tokens.ink }]}>
              <Words style={{ color: hear === choice.id ? tokens.paper : tokens.ink }}>{choice.label}</Words>
            </Tap>
          ))}
        </View>
        <Tap role="switch" icon="volume-2" label="Match loudness to the untreated sound" chosen={matched} tone="sea" onPress={() => set({ matched: !matched })} style={styles.match} />
        <HoldButton held={comparing} onHold={(held) => set({ comparing: held })} />
      </View>
      {matched ? <LiveText size={13} style={styles.gain} read={() => `as loud as the untreated sound: gain ${formatDb(studio.player.meters.read().matchDb)}`} /> : null}
    </View>
  );
}

const LIFTS = ['pointerup', 'pointercancel', 'keyup', 'blur'] as const;

/** Held by finger, mouse or space bar. */
function HoldButton({ held, onHold }: { readonly held: boolean; readonly onHold: (held: boolean) => void }) {
  const tokens = useTokens();
  const view = useRef<View>(null);
  const latest = useRef(onHold);
  useEffect(() => {
    latest.current = onHold;
  });
  useKeys(view, (event) => {
    if (event.key !== ' ' && event.key !== 'Enter') return false;
    onHold(true);
    return true;
  });
  useEffect(() => {
    const element = elementOf(view.current);
    if (!element) return undefined;
    element.style.touchAction = 'none';
    const press = (event: PointerEvent): void => {
      element.setPointerCapture(event.pointerId);
      latest.current(true);
    };
    const lift = (): void => latest.current(false);
    element.addEventListener('pointerdown', press);
    for (const name of LIFTS) element.addEventListener(name, lift);
    return () => {
      element.removeEventListener('pointerdown', press);
      for (const name of LIFTS) element.removeEventListener(name, lift);
    };
  }, []);
  return (
    <View
      ref={view}
      role="button"
      tabIndex={0}
      aria-label="Hold to hear the untreated sound"
      aria-pressed={held}
      style={[styles.hold, { borderColor: tokens.sand, backgroundColor: held ? tokens.sand : tokens.sandSoft }]}
    >
      <Words numberOfLines={1} style={{ color: held ? tokens.paper : tokens.ink }}>hold: dry</Words>
    </View>
  );
}

const styles = StyleSheet.create({
  bar: { borderTopWidth: 1, paddingHorizontal: 12, paddingVertical: 7 },
  row: { flexDirection: 'row', alignItems: 'center', gap: 6 },
  group: { flex: 1, flexDirection: 'row', borderWidth: 1, borderRadius: 14, overflow: 'hidden' },
  choice: { flexGrow: 1, borderRadius: 12, paddingHorizontal: 4 },
  hold: { height: TOUCH, paddingHorizontal: 9, borderRadius: 14, borderWidth: 1.5, alignItems: 'center', justifyContent: 'center', userSelect: 'none', cursor: 'pointer' },
  match: { paddingHorizontal: 8, borderRadius: 14 },
  gain: { paddingTop: 4 },
});
