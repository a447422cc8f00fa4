import { Dialog as Kept } from 'bits-ui';
import Close from './Close.svelte';

/** What stands within a {@link DialogBox}: its title, a sentence below it, and a button that closes it. */
export const Dialog = { Title: Kept.Title, Description: Kept.Description, Close };
