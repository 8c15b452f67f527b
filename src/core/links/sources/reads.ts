import { readPlaylist, readPreset } from '../../formats/playlist';
import { readListing } from './stores/storeListing';
import { readFileListing } from '../../formats/fileListing';
import { newStore } from './stores/stores';
import { fromListing } from './stores/fromListing';
import { mediaSchema } from '../../parts/media';
import { itemOfEntry } from './lists/listEdits';
import { sourcesSettings } from './settings';
import { promised, type FuzzedReader } from '../../readers/reader';

/** What a list of ours takes: a playlist that was read must fit as it is. */
function readIntoPlan(bytes: Uint8Array): void {
	const read = readPlaylist(bytes);
	if (!read.ok) return;
	for (const { extra } of read.value.entries) readPreset(extra);
	const items = read.value.entries.map((entry, n) => itemOfEntry(entry, `e${n}`));
	const fits = sourcesSettings.safeParse({
		used: true,
		listTitle: read.value.title ?? '',
		header: read.value.header,
		items,
		waitForNetwork: true,
		carry: 'set' as const,
		stores: [],
		bufferSec: 0,
		pauses: null,
		rules: [],
		chooseAt: []
	});
	promised(
		fits.success,
		`the list fits a plan: ${fits.error?.issues[0]?.path.join('.')} ${fits.error?.issues[0]?.message}`
	);
}

export default [
	{
		name: 'readPlaylist',
		samples: [
			'<opml version="2.0"><head><title>t</title></head><body><outline text="a" URL="http://a.example/" image="l"><outline text="b" url="http://b.example/"/></outline></body></opml>',
			'#EXTM3U x="a, b"\n#PLAYLIST:Nights\n#EXTINF:12 logo="a, b.png",Ferry, by night\nferry.flac\n#EXTGRP:x\nhttp://radio.example/a\n',
			'[playlist]\nFile1=a.ogg\nTitle1="Tide"\nLength1=65\nNumberOfEntries=1\nVersion=2\n',
			'<?xml version="1.0"?>\n<playlist version="1" xmlns="http://xspf.org/ns/0/"><title>A &amp; B</title><trackList><track><location>a%20b.flac</location><title>T</title><creator>C</creator><duration>61000</duration></track></trackList></playlist>'
		],
		read: readIntoPlan
	},
	{
		name: 'readListing',
		samples: [
			'\n\tSharename       Type      Comment\n\t---------       ----      -------\n\tmedia           Disk      Films\n\tIPC$            IPC       \n',
			'Disk|media|Films\n',
			'Export list for files.local:\n/export/films 192.168.40.0/24\n',
			'//files.local/media on /srv/music type cifs (ro)\n'
		],
		read: (_, text) => readListing(text)
	},
	{
		name: 'readFileListing',
		samples: [
			'7\tEvenings/a.flac\n9\tb.mp3\n',
			'.:\ntotal 8\n-rw-r--r-- 1 root root 7 Nov 26 18:00 a b.flac\n\n./Evenings:\n',
			'{"streams":[{"codec_type":"audio","codec_name":"flac","sample_rate":"44100","channels":2}],"format":{"filename":"./a.flac","duration":"2.0","size":"9"}}'
		],
		read: (bytes) => {
			const listing = readFileListing(bytes);
			const store = newStore('nfs', 'a', []);
			if (listing.ok)
				for (const media of fromListing(listing.value, store).media)
					promised(mediaSchema.safeParse(media).success, 'facts fit their schema');
		}
	}
] satisfies readonly FuzzedReader[];
