import { readCalendar } from './calendar';
import { readUnit, readExec, readTimeSpanMs } from './unit';
import { type FuzzedReader } from '../../readers/reader';

export default [
	{
		name: 'readCalendar',
		samples: ['Mon..Fri *-*-* 07:30:00 Europe/Oslo', '*-*~01/7:00'],
		read: (_, text) => readCalendar(text)
	},
	{
		name: 'readUnit',
		samples: ['[Unit]\nDescription=a \\\n b\n[Service]\nExecStart=/bin/x "a b" $$x %%\n'],
		read: (_, text) => readUnit(text)
	},
	{ name: 'readExec', samples: ['-/bin/x "a b" \'c\' \\x41 \\u00e5'], read: (_, text) => readExec(text) },
	{ name: 'readTimeSpanMs', samples: ['1min 30s', 'infinity'], read: (_, text) => readTimeSpanMs(text) }
] satisfies readonly FuzzedReader[];
