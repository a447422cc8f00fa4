import { json } from '@sveltejs/kit';
import { askedIn } from '$lib/core/packet';
import { house } from '$lib/server';
import { packetPage } from '$lib/server/lists';
import { accountIn } from '$lib/server/web';

/** The next page of what is out. */
export const GET = ({ locals, url }) => json(packetPage(house(), accountIn(locals), askedIn('open', url.searchParams)));
