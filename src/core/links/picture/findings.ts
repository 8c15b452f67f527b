import type { Claim } from '../../claims';
import type { Context } from '../../link/context';
import type { Finding } from '../../link/finding';
import type { Judge } from '../../manifest';
import { assessControls } from './controls/assessControls';
import { assessComposite } from './modes/composite';
import { assessEdges, assessStart } from './edges/assessEdges';
import { assessCadence, assessMode, assessWord } from './modes/assessMode';
import {
	assessContents,
	assessDecoding,
	assessDrawing,
	assessLadder,
	assessLevels,
	withoutPicture
} from './assessOutput';
import { assessSwitching } from './switching/assessSwitching';
import { assessDelay, assessSight, assessStill } from './assessSight';
import type { PictureSettings } from './settings';
import { pictureWay } from './way';

/** All findings from board to eye. */
export function assessPicture(settings: PictureSettings, context: Context, claims: readonly Claim[]): Finding[] {
	const way = pictureWay(settings, context);
	if (!way.screen)
		return [
			{
				id: 'picture.no-screen',
				level: 'stop',
				title: 'No screen is chosen',
				why: 'Which modes go, how large letters must be and whether edges are cut hangs on the screen. Choose one, or do without a picture.',
				setting: 'parts.screen',
				fixes: withoutPicture(context)
			}
		];
	return [
		...assessWord(settings, context, way),
		...assessMode(settings, context, way),
		...assessComposite(settings, way),
		...assessCadence(way, context),
		...assessEdges(settings, context, way),
		...assessStart(settings, context, way),
		...assessSwitching(settings, context, way),
		...assessContents(context, claims),
		...assessSight(settings, way),
		...assessStill(settings, way, context),
		...assessDrawing(settings, context),
		...assessDecoding(way, context),
		...assessLevels(settings),
		...assessDelay(settings, context),
		...assessLadder(way),
		...assessControls(settings, context)
	];
}

export default assessPicture satisfies Judge<PictureSettings>;
