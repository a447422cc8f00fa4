import { error, redirect } from '@sveltejs/kit';
import { commissionFault } from '$lib/core/notary';
import { notaryIn } from '$lib/core/route';
import { house } from '$lib/server';
import { formIn } from '$lib/server/forms';
import { letPlay, notaries, sessionsOf } from '$lib/server/notary';
import { packetState } from '$lib/server/packets/act';
import { newLink } from '$lib/server/packets/links';
import { standInsFor } from '$lib/server/stand-ins';

export const load = ({ locals }) => {
	standInsFor(locals);
	const now = house().now().toISOString();
	return {
		now,
		notaries: notaries(house().db)
			.map((one) => {
				const no = commissionFault(one, now);
				return { ...one, fault: no?.say ?? '', sessions: sessionsOf(house().db, one.id) };
			})
			// who has something to do comes first, who is not chosen any more last
			.sort((a, b) => Number(a.ended) - Number(b.ended) || b.sessions.length - a.sessions.length)
	};
};

export const actions = {
	play: async ({ request, locals }) => {
		standInsFor(locals);
		const form = await formIn(request);
		letPlay(house(), form.text('notary', 40), form.text('plays', 3) === 'yes');
		redirect(303, '/stand-ins/notary');
	},
	/** a link to the notary's desk, as it came to them by mail */
	sit: async ({ request, locals }) => {
		standInsFor(locals);
		const id = (await formIn(request)).text('packet', 40);
		const packet = packetState(house().db, id);
		const notary = packet.status === 'none' ? undefined : notaryIn(packet.plan);
		if (!notary) error(404, { message: 'There is no such session.' });
		redirect(303, `/s/${newLink(house().db, id, notary.id, house().now())}`);
	}
};
