/** What a form on a packet's page got back: which one, what stood in it, the sentence where it was refused. */
export interface Answered {
	form?: string;
	kept?: Record<string, string>;
	say?: string;
}

/** The sentence for one form of one person; '' where there is none. */
export function saidTo(answered: Answered | null, form: string, person?: string): string {
	if (!answered || answered.form !== form) return '';
	return person !== undefined && answered.kept?.['person'] !== person ? '' : (answered.say ?? '');
}
