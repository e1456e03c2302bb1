import { useRouter } from 'expo-router';
import { useEffect, useRef } from 'react';
import { formatAddress, type Address } from '../../data/address';
import { ApiProblem } from '../../data/api';
import { useOpenPiece } from '../../data/openPiece';
import { useView } from '../../data/view';
import { openPieceById } from '../studio/openPieceById';
import { useAddress } from './useAddress';
import { reasonOf } from '../../core/reasonOf';

/** Brings into view what an address names; what it leaves out stays as it is. */
function show(address: Address): void {
  const { channel } = address;
  const view = useView.getState();
  const slot = address.view === 'moves' && channel === view.channel ? view.slot : address.slot;
  if (channel !== null && (channel !== view.channel || slot !== view.slot)) useView.setState({ channel, slot });
}

/**
 * Keeps the browser's address and what is in view the same: a link, a reload or the way back opens the piece, channel
 * and effect of the address, and whatever is opened by hand gets an address of its own.
 */
export function AddressSync() {
  const router = useRouter();
  const address = useAddress();
  const here = useRef(address);
  useEffect(() => {
    here.current = address;
    const open = useOpenPiece.getState().piece?.id ?? null;
    if (!address || open === null) return;
    if (address.piece === null) router.replace(formatAddress({ ...address, piece: open }));
    else if (address.piece === open) show(address);
    else
      openPieceById(address.piece, address).catch((error: unknown) => {
        const gone = error instanceof ApiProblem && error.status === 404;
        const reason = reasonOf(error);
        useOpenPiece.getState().say(gone ? 'The piece of this address is not here. This one was open last.' : reason);
        router.replace(formatAddress({ ...address, piece: open, channel: null, slot: null }));
      });
  }, [address, router]);
  useEffect(() => {
    let due = false;
    let opened = false;
    const follow = (): void => {
      due = false;
      const at = here.current;
      const piece = useOpenPiece.getState().piece?.id;
      if (!at || piece === undefined) return;
      const { channel, slot } = useView.getState();
      const next = formatAddress({ ...at, piece, ...(opened ? { channel: null, slot: null } : { channel, slot }) });
      opened = false;
      if (next !== formatAddress(at)) router.push(next);
    };
    // Opening a piece changes several things in one turn: they become one address.
    const later = (): void => {
      if (!due) queueMicrotask(follow);
      due = true;
    };
    const stopPieces = useOpenPiece.subscribe((now, before) => {
      if (now.piece?.id === before.piece?.id || now.piece?.id === here.current?.piece) return;
      opened = true;
      later();
    });
    const stopViews = useView.subscribe((now, before) => {
      if (now.channel !== before.channel || now.slot !== before.slot) later();
    });
    return () => {
      stopPieces();
      stopViews();
    };
  }, [router]);
  return null;
}
