import { useEffect } from 'react';

/** Keeps the screen awake for as long as it is shown; the browser releases it when the page is hidden. */
export function useWakeLock(): void {
  useEffect(() => {
    let lock: WakeLockSentinel | null = null;
    let left = false;
    const ask = (): void => {
      if (document.visibilityState !== 'visible' || !('wakeLock' in navigator)) return;
      navigator.wakeLock.request('screen').then(
        (given) => {
          if (left) void given.release();
          else lock = given;
        },
        // Rejected by a device that is low on power: the screen then turns off as usual.
        () => undefined,
      );
    };
    ask();
    document.addEventListener('visibilitychange', ask);
    return () => {
      left = true;
      document.removeEventListener('visibilitychange', ask);
      void lock?.release();
    };
  }, []);
}

export const canFillScreen = (): boolean => document.fullscreenEnabled;

/** Full screen and back. */
export function fillScreen(): void {
  if (document.fullscreenElement) void document.exitFullscreen();
  else void document.documentElement.requestFullscreen();
}
