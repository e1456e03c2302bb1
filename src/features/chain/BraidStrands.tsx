import { useMemo, useState, type ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { MAX_STRANDS } from '../../core/effects/braid/params';
import { effectOf } from '../../core/effects/catalogue';
import { formatValue } from '../../core/params/format';
import type { ValueContext } from '../../core/params/param';
import { addStrand, removeStrand, renameStrand } from '../../core/piece/edits/braid';
import { contextOf } from '../../core/piece/find';
import type { Slot, Strand } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { NameField } from '../../ui/NameField';
import { Sheet } from '../../ui/Sheet';
import { Button } from '../../ui/Button';
import { ListItem } from '../../ui/ListItem';
import { IconButton } from '../../ui/IconButton';
import { Text } from '../../ui/Text';
import { usePiece } from '../studio/StudioProvider';
import { StrandLamp } from '../shared/strands/StrandLamp';
import { BranchGroup } from './BranchGroup';

interface BraidStrandsProps {
  readonly channel: string;
  readonly slot: Slot;
  readonly renderChain: (strand: Strand) => ReactNode;
}

/** The strands of a braid, each a chain of its own. */
export function BraidStrands({ channel, slot, renderChain }: BraidStrandsProps) {
  const piece = usePiece();
  const context = useMemo(() => contextOf(piece), [piece]);
  const strands = slot.strands ?? [];
  const onlyOne = slot.values.plays === 'one' ? Math.round(Number(slot.values.chosen)) : null;
  const patterned = slot.values.plays === 'pattern';
  const add = (): void => {
    useOpenPiece.getState().run(addStrand, { channel, slot: slot.id, called: `Strand ${strands.length + 1}` });
  };
  return (
    <View>
      {strands.map((strand) => (
        <BranchGroup
          key={strand.place}
          lamp={onlyOne !== null || patterned ? <StrandLamp slot={slot.id} place={strand.place} /> : null}
          title={strand.name}
          about={aboutStrand(slot, strand.place, context)}
          open={onlyOne === null || onlyOne === strand.place}
          untreated={strand.chain.length === 0}
          tools={<StrandMenu channel={channel} slot={slot} strand={strand} last={strands.length < 2} />}
        >
          {renderChain(strand)}
        </BranchGroup>
      ))}
      {strands.length < MAX_STRANDS ? (
        <Button icon="git-branch" tone="sea" mode="text" style={styles.lay} onPress={add}>
          Lay another strand
        </Button>
      ) : null}
    </View>
  );
}

/** Input and output settings of a strand: "mid · -6.0 dB · L 40 · 19 ms late". */
function aboutStrand({ values }: Slot, place: number, context: ValueContext): string {
  const { params } = effectOf('braid');
  const say = (id: string): string =>
    formatValue(params[`${id}${place}`]!, values[`${id}${place}`] ?? params[`${id}${place}`]!.initial, context);
  const pan = values[`pan${place}`] ? ` · ${say('pan')}` : '';
  const late = values[`align${place}`] ? ` · ${say('align')} late` : '';
  return `${say('input')} · ${say('level')}${pan}${late}`;
}

function StrandMenu({
  channel,
  slot,
  strand,
  last,
}: {
  readonly channel: string;
  readonly slot: Slot;
  readonly strand: Strand;
  readonly last: boolean;
}) {
  const [open, setOpen] = useState(false);
  const { run } = useOpenPiece.getState();
  const where = { channel, slot: slot.id, place: strand.place };
  return (
    <>
      <IconButton
        icon="more-horizontal"
        label={`More for strand ${strand.name}`}
        tone="mute"
        onPress={() => setOpen(true)}
      />
      <Sheet title={strand.name} visible={open} onClose={() => setOpen(false)}>
        <NameField
          label="Name of the strand"
          initial={strand.name}
          onName={(called) => {
            if (run(renameStrand, { ...where, called })) setOpen(false);
          }}
        />
        {last ? (
          <Text variant="bodySmall">A braid keeps one strand at least.</Text>
        ) : (
          <ListItem
            title="Take it out"
            label={`Take out strand ${strand.name}`}
            icon="trash-2"
            tone="danger"
            onPress={() => {
              run(removeStrand, where);
              setOpen(false);
            }}
          />
        )}
        <Text variant="bodySmall">What it takes, its level, pan and alignment are set in the braid’s editor.</Text>
      </Sheet>
    </>
  );
}

const styles = StyleSheet.create({
  lay: { alignSelf: 'flex-start', marginLeft: 30, marginTop: -8, marginBottom: 10 },
});
