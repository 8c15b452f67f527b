import { readPlayed, countPlayed } from './kiosk/played';
import { shownIn } from './pages/content';
import { newZone } from './settings';
import { promised, type FuzzedReader } from '../../readers/reader';

export default [
	{
		name: 'readPlayed',
		samples: [
			'[12:1127/090000.1:INFO:CONSOLE(1)] "yphos-page shows 2026-11-27T09:00:00.000Z ["page-tides","Tides","=rule"]", source: file:///opt/yphos/notices/player.js (1)\nyphos-page alive 2026-11-27T09:01:00.000Z \nyphos-page shows 2026-11-27T09:01:20.000Z ["s1","Ferry, \\"late\\"",""]\n'
		],
		read(_, text) {
			const read = readPlayed(text);
			if (!read.ok) return;
			promised(!/^[=+@-]/m.test(countPlayed(read.value)), 'no cell of CSV is a formula');
			promised(
				read.value.every(({ forMs }) => forMs === null || forMs >= 0),
				'nothing is shown for less than no time'
			);
		}
	},
	{
		name: 'readFeed',
		samples: [
			'Time,Height\n2026-11-27 05:12,"3,4 m"\n17:38,"a ""b"""\n',
			'BEGIN:VCALENDAR\r\nVERSION:2.0\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTART;TZID=Europe/Oslo:20261201T090000\r\nDURATION:PT90M\r\nRRULE:FREQ=WEEKLY;BYDAY=TU,TH;COUNT=9\r\nEXDATE;TZID=Europe/Oslo:20261203T090000\r\nSUMMARY:Tour\r\nLOCATION:Lamp\r\nEND:VEVENT\r\nBEGIN:VEVENT\r\nUID:1\r\nRECURRENCE-ID;TZID=Europe/Oslo:20261208T090000\r\nDTSTART:20261208T110000Z\r\nSUMMARY:Tour\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n',
			'<?xml version="1.0"?><rss version="2.0"><channel><title>Harbour</title><item><title>Ferry &lt;b&gt;off&lt;/b&gt; &amp; late</title><pubDate>Fri, 27 Nov 2026 08:00:00 GMT</pubDate></item></channel></rss>',
			'{"place":"Skerrin","updated":"2026-11-27T06:00:00Z","now":{"temperatureC":6.5,"windMs":9,"windFromDeg":225,"sky":"rain"},"days":[{"date":"2026-11-27","highC":8,"lowC":4,"rainMm":6,"sky":"rain"}]}'
		],
		read(_, text) {
			for (const [shows, kind] of [
				['table', 'table'],
				['curve', 'table'],
				['calendar', 'calendar'],
				['news', 'news'],
				['weather', 'weather']
			] as const) {
				const shown = shownIn(newZone('z', shows, { x: 0, y: 0, w: 12, h: 6 }, { feed: 'f' }), {
					nowUtcMs: Date.UTC(2026, 10, 27, 9),
					venue: { timeZone: 'Europe/Oslo', opening: [], closedOnHolidays: false, holidays: [] },
					units: 'metric',
					language: 'en-GB',
					feed: () => ({ kind, title: '', text, fetchedUtcMs: null })
				});
				promised(shown.trouble !== null || shown.content.kind !== 'nothing', 'a zone shows something or says why not');
			}
		}
	}
] satisfies readonly FuzzedReader[];
