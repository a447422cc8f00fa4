import { json } from '@sveltejs/kit';
import { house } from '$lib/server';
import { description } from '$lib/server/api';
import { version } from '../../../../../package.json';

/** The API's description, OpenAPI 3.1. */
export const GET = () => json(description(house().config.origin, version));
