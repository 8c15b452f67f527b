import type { Worktop } from '../worktop';
import PictureDrawing from './PictureDrawing.svelte';
import PictureModes from './PictureModes.svelte';
import PictureSettings from './PictureSettings.svelte';
import PictureWord from './PictureWord.svelte';

const worktop: Worktop = {
	settings: PictureSettings,
	drawing: PictureDrawing,
	beside: PictureModes,
	wide: true,
	below: PictureWord
};
export default worktop;
