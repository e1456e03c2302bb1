// The words of zod's own messages in English alone: the page would load those of fifty languages.
export { default as en } from 'zod/v4/locales/en.js';
