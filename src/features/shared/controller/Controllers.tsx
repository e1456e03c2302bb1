import { useEffect } from 'react';
import { useStudio } from '../../studio/StudioProvider';
import { ControlHands } from './controlHands';
import { controlMessages } from './controllerStore';

/** Lets controllers move the open piece, in whatever view. */
export function Controllers() {
  const { studio } = useStudio();
  useEffect(() => {
    const hands = new ControlHands(studio);
    const stop = controlMessages.on((message) => hands.take(message));
    return () => {
      stop();
      hands.close();
    };
  }, [studio]);
  return null;
}
