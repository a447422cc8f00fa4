import type { Answer } from '../../../core/field';
import type { Field } from '../../../core/packet';
import type { Keeper } from '../keeper';

/** What every way of answering is given. */
export interface Asked {
	field: Field;
	/** all fields, for the buttons of its group */
	fields: Field[];
	answer: Answer | undefined;
	/** whether a sentence stands beneath that says what is wrong */
	invalid: boolean;
	locale: string;
	/** of the person who answers */
	name: string;
	/** how many other places could take the same mark */
	others: number;
	keeper: Pick<Keeper, 'picture' | 'file'>;
	/** for fingers: as on the signing page */
	large: boolean;
	ongive: (answer: Answer | null, everywhere?: boolean) => void;
	/** what can't be taken, in the reader's language; '' where all is well again */
	onunread: (say: string) => void;
	onenter?: () => void;
}

export const sizeOf = (large: boolean): string => (large ? 'min-h-[44px]! text-[16px]' : '');
export const helpOf = (field: Field): string | undefined => (field.help ? `help-${field.id}` : undefined);
