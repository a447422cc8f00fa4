import { redirect } from '@sveltejs/kit';
import { house } from '$lib/server';
import { newDraft } from '$lib/server/packets/drafts';
import { accountIn } from '$lib/server/web';

export const POST = ({ locals }) => redirect(303, `/bench/${newDraft(house(), accountIn(locals)).id}`);
