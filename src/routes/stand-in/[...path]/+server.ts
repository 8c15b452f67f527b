import { standIn } from '$lib/server/standIn';
import type { RequestHandler } from './$types';

/** The made-up stations. */
export const GET: RequestHandler = ({ params, url, request }) => standIn(params.path, url, request.headers, Date.now());
