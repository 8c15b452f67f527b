/// <reference types="@sveltejs/kit" />
/// <reference lib="webworker" />
import { build, files, version } from '$service-worker';

/** Keeps the app's own files, so that it works without a network after the first visit. */
const worker = self as unknown as ServiceWorkerGlobalScope;
const CACHE = `yphos-${version}`;
const SHELL = '/';

worker.addEventListener('install', (event) => {
	event.waitUntil(caches.open(CACHE).then((cache) => cache.addAll([SHELL, ...build, ...files])));
});

worker.addEventListener('activate', (event) => {
	event.waitUntil(
		caches.keys().then((keys) => Promise.all(keys.filter((key) => key !== CACHE).map((key) => caches.delete(key))))
	);
});

worker.addEventListener('fetch', (event) => {
	const url = new URL(event.request.url);
	if (event.request.method !== 'GET' || url.origin !== location.origin) return;
	// Every page is the same shell: its contents come from this browser's own store.
	if (event.request.mode === 'navigate')
		event.respondWith(fetch(event.request).catch(async () => (await caches.match(SHELL)) ?? Response.error()));
	else event.respondWith(caches.match(event.request).then((kept) => kept ?? fetch(event.request)));
});
