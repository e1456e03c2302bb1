import { useEffect } from 'react';
import { useStudio } from '../../studio/StudioProvider';
import { ControlHands } from './controlHands';
import { controlMessages, transportMessages } from './controllerStore';
import { obeyTransport } from './transport';

/** Lets controllers move the open piece, in whatever view. */
export function Controllers() {
  const { studio } = useStudio();
  useEffect(() => {
    const hands = new ControlHands(studio);
    const stop = [
      controlMessages.on((message) => hands.take(message)),
      transportMessages.on((message) => obeyTransport(studio, message)),
    ];
    return () => {
      stop.forEach((end) => end());
      hands.close();
    };
  }, [studio]);
  return null;
}
