import { readRuleLine, writeRuleLine } from './rules/ruleText';
import { type FuzzedReader } from '../../readers/reader';

export default [
	{
		name: 'readRuleLine',
		samples: [
			'film days=12345 nth=last week=1 season=1001-331 valid=20260101-20271231 only=20261224 never=20261225,20261226 each=60-2 from=540 until=set+30 title=Open'
		],
		read(_, text) {
			const line = readRuleLine(text);
			if (line && line !== 'broken') readRuleLine(writeRuleLine(line));
		}
	}
] satisfies readonly FuzzedReader[];
