import { standIn } from '$lib/server/standIn';
import type { RequestHandler } from './$types';

/** The made-up stations. A page of strangers may not take their places: its browser says where such a request comes from. */
export const GET: RequestHandler = ({ params, url, request }) =>
	/^(?:cross-site|same-site)$/.test(request.headers.get('sec-fetch-site') ?? '')
		? new Response('Only Yphos\u2019s own page may ask for that.\n', { status: 403 })
		: standIn(params.path, url, request.headers, Date.now());
