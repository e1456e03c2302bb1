import { useMemo, useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { effectOf } from '../../core/effects/catalogue';
import type { EditorPart, EffectDefinition } from '../../core/effects/define';
import type { Param, ParamValue } from '../../core/params/param';
import { effectOfTarget, findLane } from '../../core/piece/find';
import { paramName, sectionTitle } from '../../core/piece/paramName';
import type { Piece, Slot, Target } from '../../core/piece/piece';
import { keepHints, useView } from '../../data/view';
import { IconButton } from '../../ui/IconButton';
import { Text } from '../../ui/Text';
import { Touchable } from '../../ui/Touchable';
import { useTokens, useWide } from '../../ui/theme';
import { usePiece } from '../studio/StudioProvider';
import { LinkList } from '../shared/links/LinkList';
import { useStore } from 'zustand';
import { HoldPad } from './HoldPad';
import { setLiveValue, type LiveValues } from './liveValues';
import { OwnSound } from './OwnSound';
import { ParamRail } from '../shared/channels/ParamRail';
import { SideTrack } from './SideTrack';
import { StrandRow } from './StrandRow';
import { TimeTools } from './TimeTools';
import { holds, isVisible } from '../../core/effects/visibleWhen';
import { PinButton } from './PinnedRails';

type Values = Readonly<Record<string, ParamValue>>;

interface EffectRailsProps {
  readonly channel: string;
  readonly slot: Slot;
  readonly live: LiveValues;
  /** Values of the preset: a double tap resets to them. */
  readonly initial: Values;
  /** True to show all sections at once, in two columns. */
  readonly roomy: boolean;
}

/** A parameter with its id. */
type Entry = readonly [string, Param];

type Shown = EffectRailsProps & {
  /** Parameters that have an effect with the present settings, in the effect's order. */
  readonly params: readonly Entry[];
  readonly hints: boolean;
};

/** Sections in the effect's order, without empty ones. */
const sectionsOf = ({ params }: Shown): string[] => {
  const all = [...new Set(params.map(([, param]) => param.group))];
  return [...all.filter((name) => name !== 'Mix'), 'Mix'];
};

/** Keeps the array's identity while the same parameters are visible, whatever their values. */
function useShownParams({ slot, live }: EffectRailsProps): Shown['params'] {
  const definition = effectOf(slot.effect);
  const replaced = definition.editorParts?.flatMap(({ replaces }) => replaces ?? []) ?? [];
  const ids = useStore(live, (moved) =>
    definition.paramIds
      .filter((id) => !replaced.includes(definition.params[id]!.group))
      .filter((id) => isVisible(definition, id, { values: { ...slot.values, ...moved }, strands: slot.strands }))
      .join(),
  );
  return useMemo(() => ids.split(',').map((id) => [id, definition.params[id]!] as const), [ids, definition]);
}

/** Links are a section of their own, after all others. */
const LINKS = 'Links';

/** Every rail of an effect: one section at a time where there is little room, all in two columns where there is. */
export function EffectRails(props: EffectRailsProps) {
  const wide = useWide();
  const hints = useView((view) => view.hints) ?? wide;
  const params = useShownParams(props);
  return props.roomy ? (
    <Columns {...props} params={params} hints={hints} />
  ) : (
    <Tabs {...props} params={params} hints={hints} />
  );
}

function Columns(props: Shown) {
  const sections = sectionsOf(props);
  const columns = [sections.filter((_, i) => i % 2 === 0), sections.filter((_, i) => i % 2 === 1)];
  const rails = columns.map((names) => names.reduce((sum, name) => sum + paramsOf(props, name).length, 0));
  const shorter = rails[0]! < rails[1]! ? 0 : 1;
  return (
    <ScrollView style={styles.rails} contentContainerStyle={styles.columns}>
      {columns.map((names, i) => (
        <View key={i} style={styles.column}>
          {names.map((name, k) => (
            <View key={name} role="group" aria-label={sectionTitle(name, props.slot)}>
              <View style={styles.sectionHead}>
                <Text variant="headlineSmall" role="heading" aria-level={3} style={styles.sectionName}>
                  {sectionTitle(name, props.slot)}
                </Text>
                {i === 1 && k === 0 ? <PinButton slot={props.slot} /> : null}
                {i === 1 && k === 0 ? <HintsTap on={props.hints} /> : null}
              </View>
              {paramsOf(props, name).map(([id, param]) => (
                <Block key={id} id={id} param={param} {...props} />
              ))}
            </View>
          ))}
          {i === shorter ? (
            <View role="group" aria-label={LINKS}>
              <View style={styles.sectionHead}>
                <Text variant="headlineSmall" role="heading" aria-level={3}>
                  {LINKS}
                </Text>
              </View>
              <LinkList channel={props.channel} effect={props.slot.id} />
            </View>
          ) : null}
        </View>
      ))}
    </ScrollView>
  );
}

function Tabs(props: Shown) {
  const piece = usePiece();
  const tokens = useTokens();
  const sections = [...sectionsOf(props), LINKS];
  const [wanted, setSection] = useState(sections[0]!);
  const section = sections.includes(wanted) ? wanted : sections[0]!;
  const definition = effectOf(props.slot.effect);
  const shown =
    section === sections[0]
      ? playedFirst(firstThings(paramsOf(props, section), paramsOf(props, 'Mix'), definition.headline), definition)
      : paramsOf(props, section);
  return (
    <>
      <View style={styles.tabs}>
        <ScrollView
          horizontal
          showsHorizontalScrollIndicator={false}
          contentContainerStyle={styles.tabRow}
          role="tablist"
        >
          {sections.map((name) => {
            const moves =
              name === LINKS
                ? piece.links.some(({ target }) => effectOfTarget(target) === props.slot.id)
                : hasMoves(piece, props, name);
            return (
              <Touchable
                key={name}
                role="tab"
                label={`${sectionTitle(name, props.slot)}${moves ? ', has moves' : ''}`}
                chosen={name === section}
                style={[styles.tab, name === section && { borderBottomColor: tokens.sea }]}
                onPress={() => setSection(name)}
              >
                <Text
                  variant={name === section ? 'titleSmall' : 'bodyMedium'}
                  tone={name === section ? 'ink' : 'mute'}
                >{`${sectionTitle(name, props.slot)}${moves ? ' ∿' : ''}`}</Text>
              </Touchable>
            );
          })}
        </ScrollView>
        <PinButton slot={props.slot} />
        <HintsTap on={props.hints} />
      </View>
      <ScrollView style={styles.rails} contentContainerStyle={styles.list}>
        {section === LINKS ? (
          <LinkList channel={props.channel} effect={props.slot.id} />
        ) : (
          shown.map(([id, param]) => <Block key={id} id={id} param={param} {...props} />)
        )}
      </ScrollView>
    </>
  );
}

/** Controls that are played come before those that are set. */
function playedFirst(params: readonly Entry[], { editorParts }: EffectDefinition): Entry[] {
  const isPlayed = ([id]: Entry): boolean =>
    editorParts?.some(({ part, after }) => part === 'holdPad' && after === id) ?? false;
  return [...params.filter(isPlayed), ...params.filter((entry) => !isPlayed(entry))];
}

/** The first section on a small screen: main choices, the rails used most, then the mix, then its other switches. */
function firstThings(own: readonly Entry[], mix: readonly Entry[], leading: readonly string[]): Entry[] {
  const isRail = ([, param]: Entry): boolean => param.kind === 'number';
  const leads = (entry: Entry): boolean => !isRail(entry) && leading.includes(entry[0]);
  return [
    ...own.filter(leads),
    ...own.filter(isRail),
    ...mix.filter(([id]) => id === 'mix' || id === 'dry' || id === 'wet'),
    ...own.filter((entry) => !isRail(entry) && !leads(entry)),
  ];
}

function HintsTap({ on }: { readonly on: boolean }) {
  return (
    <IconButton
      role="switch"
      icon="help-circle"
      label="Say what each rail does"
      chosen={on}
      tone={on ? 'sea' : 'mute'}
      onPress={() => keepHints(!on)}
    />
  );
}

function Block({
  id,
  param,
  channel,
  slot,
  live,
  initial,
  hints,
}: Pick<Shown, 'channel' | 'slot' | 'live' | 'initial' | 'hints'> & { readonly id: string; readonly param: Param }) {
  const target: Target = { kind: 'effect', channel, effect: slot.id, param: id };
  const moved = useStore(live, (values) => values[id]);
  const value = moved ?? slot.values[id] ?? param.initial;
  const definition = effectOf(slot.effect);
  const name = paramName(slot, id);
  return (
    <View testID={`rail ${id}`} style={styles.block}>
      <ParamRail
        target={target}
        param={param}
        value={value}
        initial={initial[id]}
        look={id === 'mix' ? 'mix' : 'wet'}
        spoken={name}
        onLive={(next) => setLiveValue(live, id, next)}
      />
      {param.kind === 'number' && param.sync === 'time' ? (
        <TimeTools param={param} spoken={name} value={value} target={target} />
      ) : null}
      {hints ? (
        <Text variant="bodySmall" style={styles.hint}>
          {param.hint}
        </Text>
      ) : null}
      {definition.editorParts?.map(({ part, after, when }) =>
        after === id && (!when || holds(when, definition, slot)) ? (
          <EditorPartOf key={part} part={part} channel={channel} slot={slot} />
        ) : null,
      )}
    </View>
  );
}

function EditorPartOf({
  part,
  channel,
  slot,
}: Pick<EditorPart, 'part'> & { readonly channel: string; readonly slot: Slot }) {
  switch (part) {
    case 'sidechain':
      return <SideTrack channel={channel} slot={slot} />;
    case 'ownSound':
      return <OwnSound channel={channel} slot={slot} />;
    case 'holdPad':
      return <HoldPad channel={channel} slot={slot} />;
    case 'strandRow':
      return <StrandRow channel={channel} slot={slot} />;
  }
}

const paramsOf = ({ params }: Shown, section: string): Entry[] => params.filter(([, param]) => param.group === section);

const hasMoves = (piece: Piece, { channel, slot }: EffectRailsProps, section: string): boolean =>
  Object.entries(effectOf(slot.effect).params).some(
    ([id, param]) =>
      param.group === section && findLane(piece, { kind: 'effect', channel, effect: slot.id, param: id }),
  );

const styles = StyleSheet.create({
  rails: { flex: 1, minHeight: 0 },
  columns: { flexDirection: 'row', paddingHorizontal: 18, paddingBottom: 20, gap: 34 },
  column: { flex: 1, minWidth: 0 },
  sectionHead: { flexDirection: 'row', alignItems: 'center', minHeight: 44, marginTop: 6 },
  sectionName: { flex: 1 },
  tabs: { flexDirection: 'row', alignItems: 'center', paddingRight: 6 },
  tabRow: { paddingHorizontal: 8 },
  tab: { borderRadius: 0, borderBottomWidth: 2, borderBottomColor: 'transparent', paddingHorizontal: 7 },
  list: { paddingHorizontal: 18, paddingBottom: 16 },
  block: { marginBottom: 2 },
  hint: { marginBottom: 4 },
});
