/** Debian's Chromium without windows: a page opens in it in a fraction of the time of the whole browser. */
export const BROWSER = process.env.CHROMIUM ?? '/usr/bin/chromium-headless-shell';
