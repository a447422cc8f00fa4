import type { FieldKind } from '../kind';
import { initials } from './initials';
import { name } from './name';
import { signature } from './signature';
import { signingDate } from './signing-date';
import { text } from './text';

/** Every kind there is, in the order of the tray. */
export const KINDS: readonly FieldKind[] = [signature, initials, signingDate, name, text];
