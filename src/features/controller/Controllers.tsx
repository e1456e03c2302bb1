import { useEffect } from 'react';
import { useStudio } from '../studio/StudioProvider';
import { ControlHands } from './controlHands';
import { onControl } from './controllerStore';

/** Lets controllers move the open piece, in whatever view. */
export function Controllers() {
  const { studio } = useStudio();
  useEffect(() => {
    const hands = new ControlHands(studio);
    const stop = onControl((message) => hands.take(message));
    return () => {
      stop();
      hands.close();
    };
  }, [studio]);
  return null;
}
