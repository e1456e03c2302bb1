import { v4 } from 'uuid';

/**
 * A new random id (UUID version 4), also where the page is not in a secure context and the browser has no `randomUUID`.
 */
export const newId = (): string => v4();
