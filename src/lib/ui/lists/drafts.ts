import { invalidateAll } from '$app/navigation';
import { tell } from '../parts/told';
import { post } from '../post';

/** Puts a draft into the bin and says so, with the way back. */
export async function binDraft(id: string, title: string): Promise<void> {
	const done = await post(`/bench/${id}/bin`, {}, 'The draft stays where it is.');
	if ('wrong' in done) return tell(done.wrong);
	await invalidateAll();
	tell(`“${title}” put into the bin`, { run: () => takeBack(id) });
}

/** Takes it back from there. */
export async function takeBack(id: string): Promise<void> {
	const done = await post(`/bench/${id}/bin`, { back: true }, 'The draft stays in the bin.');
	if ('wrong' in done) return tell(done.wrong);
	await invalidateAll();
	tell('The draft is on the Desk again');
}
