import { json } from '@sveltejs/kit';
import { house } from '$lib/server';
import { findPackets } from '$lib/server/desk';

export const GET = ({ url }) =>
	json(
		findPackets(house(), url.searchParams.get('q') ?? '').map(({ id, title, reference, status, thread }) => ({
			id,
			title,
			reference,
			status,
			people: thread.flat().map((person) => person.name)
		}))
	);
